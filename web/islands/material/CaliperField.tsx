import { useState } from 'react';
import { readCaliper } from '#core/stack/readCaliper.ts';
import { formatCaliper, type UnitSystem } from '#core/units/length.ts';

interface Props {
  readonly label: string;
  readonly caliperUm: number;
  readonly densityKgPerM3: number;
  readonly system: UnitSystem;
  readonly problem?: string | undefined;
  readonly onChange: (caliperUm: number, isMeasured: boolean) => void;
}

/**
 * A thickness as people say it: 80, 3.2 mil, 0.08 mm, 12 pt, 80 lb cover, 216 g/m². What was understood stands below
 * while one types.
 */
export function CaliperField({ label, caliperUm, densityKgPerM3, system, problem, onChange }: Props) {
  const unit = system === 'metric' ? 'µm' : 'mil';
  const shown = Number.isFinite(caliperUm) ? formatCaliper(caliperUm, system).figure : '';
  const [draft, setDraft] = useState<string | null>(null);
  // What was understood stays below the field when it is left: vanishing, it would pull away what is pressed next.
  const [words, setWords] = useState('');
  const isOdd = draft !== null && draft.trim() !== '' && !readCaliper(draft, unit, densityKgPerM3);
  return (
    <span className="block w-44">
      <span className="flex items-center gap-1.5">
        <input
          className="field figure"
          aria-label={label}
          aria-invalid={Boolean(problem) || isOdd}
          autoComplete="off"
          value={draft ?? shown}
          onChange={(event) => {
            setDraft(event.target.value);
            const read = readCaliper(event.target.value, unit, densityKgPerM3);
            const isPlain = read?.isMeasured && /^[\d.,\s]*$/.test(event.target.value);
            setWords(read && !isPlain ? read.words : '');
            if (read) onChange(read.caliperUm, read.isMeasured);
            else if (event.target.value.trim() === '') onChange(Number.NaN, false);
          }}
          onBlur={() => !isOdd && setDraft(null)}
        />
        <span className="figure text-muted">{unit}</span>
      </span>
      {words ? <span className="block text-sm text-muted">{words}</span> : null}
      {isOdd ? (
        <span className="block text-ember text-sm">a thickness: 80, 3.2 mil, 80 lb cover, 216 g/m²</span>
      ) : problem ? (
        <span className="block text-ember text-sm">{problem}</span>
      ) : null}
    </span>
  );
}
