import { factsOf, FAMILIES, type Family, isSingleLayerFamily } from '#core/stack/families/families.ts';
import { useState } from 'react';
import { describeUnknown } from '#core/stack/describeUnknown.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Props {
  readonly machineId: number;
  readonly machineName: string;
  /** Today, for the name. */
  readonly day: string;
}

const NOTHING_SEEN: Seen = {
  family: 'printableVinyl',
  name: '',
  isPrinted: false,
  isLaminated: false,
  isDark: false,
  thickness: '',
};

interface Seen {
  readonly family: Family;
  readonly name: string;
  readonly isPrinted: boolean;
  readonly isLaminated: boolean;
  readonly isDark: boolean;
  readonly thickness: string;
}

/** From an unknown sheet to its first test cut: what can be seen and felt, nothing else. */
export function UnknownSheet({ machineId, machineName, day }: Props) {
  const [seen, setSeen] = useState(NOTHING_SEEN);
  const [error, setError] = useState<Error | null>(null);
  const [isBusy, setBusy] = useState(false);
  const change = (part: Partial<Seen>) => setSeen({ ...seen, ...part });
  const isSingle = isSingleLayerFamily(seen.family);
  const start = async () => {
    setBusy(true);
    setError(null);
    try {
      await loadUnknown(machineId, { ...seen, isLaminated: seen.isLaminated && !isSingle }, day);
      window.location.assign('/test-cuts');
    } catch (problem) {
      setError(problem instanceof Error ? problem : new Error('That did not work.'));
      setBusy(false);
    }
  };
  return (
    <section aria-label="Unknown sheet" className="sheet p-4 sm:p-6 max-w-[46rem]">
      <h1>A sheet nobody knows</h1>
      <p className="text-muted mt-1">
        Say what you see. Everything can be corrected later; the first test cut on {machineName} teaches more
        than any of it.
      </p>
      <FamilyChoice family={seen.family} onChange={(family) => change({ family })} />
      <SeenToggles seen={seen} isSingle={isSingle} onChange={change} />
      <div className="grid sm:grid-cols-2 gap-4 mt-4">
        <TextField
          id="unknown-thickness"
          label="Thickness of all layers, µm, if measured"
          value={seen.thickness}
          onChange={(thickness) => change({ thickness })}
        />
        <TextField
          id="unknown-name"
          label="A name, if it has one"
          value={seen.name}
          onChange={(name) => change({ name })}
        />
      </div>
      <Refusal error={error} />
      <button
        type="button"
        className="button mt-5"
        data-kind="main"
        disabled={isBusy}
        onClick={() => void start()}
      >
        Load it and find its setting
      </button>
    </section>
  );
}

interface SeenProps {
  readonly seen: Seen;
  readonly isSingle: boolean;
  readonly onChange: (part: Partial<Seen>) => void;
}

function SeenToggles({ seen, isSingle, onChange }: SeenProps) {
  return (
    <div role="group" aria-label="What else is seen" className="flex flex-wrap gap-2 mt-4">
      <Toggle label="printed" isOn={seen.isPrinted} onChange={(isPrinted) => onChange({ isPrinted })} />
      {isSingle ? null : (
        <Toggle
          label="laminated"
          isOn={seen.isLaminated}
          onChange={(isLaminated) => onChange({ isLaminated })}
        />
      )}
      <Toggle
        label="dark or strongly coloured"
        isOn={seen.isDark}
        onChange={(isDark) => onChange({ isDark })}
      />
    </div>
  );
}

/** Writes the sheet into the book and lays it on the machine. */
async function loadUnknown(machineId: number, { thickness, ...seen }: Seen, day: string): Promise<void> {
  const totalUm = thickness.trim() === '' ? null : Number(thickness.replace(',', '.'));
  const material = describeUnknown({ ...seen, day, totalUm });
  const { conditionId } = await callApi<{ readonly conditionId: number }>('/api/materials', 'POST', material);
  await callApi(`/api/stations/${machineId}`, 'PATCH', { conditionId });
}

interface FamilyProps {
  readonly family: Family;
  readonly onChange: (family: Family) => void;
}

function FamilyChoice({ family, onChange }: FamilyProps) {
  return (
    <fieldset className="mt-4">
      <legend className="font-semibold">What is it most like?</legend>
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-2 mt-2">
        {FAMILIES.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={family === one}
            onClick={() => onChange(one)}
            className="button font-normal leading-tight aria-pressed:bg-ink aria-pressed:text-on-ink aria-pressed:font-semibold"
          >
            {factsOf(one).name}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

interface TextProps {
  readonly id: string;
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
}

function TextField({ id, label, value, onChange }: TextProps) {
  return (
    <div>
      <label htmlFor={id} className="block">
        {label}
      </label>
      <input
        id={id}
        className="field"
        maxLength={80}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </div>
  );
}

interface ToggleProps {
  readonly label: string;
  readonly isOn: boolean;
  readonly onChange: (isOn: boolean) => void;
}

function Toggle({ label, isOn, onChange }: ToggleProps) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      onClick={() => onChange(!isOn)}
      className="button font-normal aria-pressed:bg-ink aria-pressed:text-on-ink aria-pressed:font-semibold"
    >
      {label}
    </button>
  );
}
