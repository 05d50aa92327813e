import { useState } from 'react';
import { CARD_CORNERS, type CardReading } from '#core/sheet/marks/registrationCard.ts';
import {} from '#web/islands/shared/units.ts';

interface Props {
  /** Resolves to true when the reading was kept. */
  readonly onKeep: (reading: CardReading) => Promise<boolean>;
}

type Typed = Readonly<Record<string, string>>;

/** What stands at the lines that meet, in tenths of a mm, at each corner of a card. */
export function CardReadingForm({ onKeep }: Props) {
  const [typed, setTyped] = useState<Typed>({});
  const [isBusy, setBusy] = useState(false);
  const reading = readTyped(typed);
  const keep = async () => {
    if (!reading) return;
    setBusy(true);
    if (await onKeep(reading)) setTyped({});
    setBusy(false);
  };
  return (
    <fieldset className="mt-4">
      <legend className="font-semibold">What the card says</legend>
      <p className="text-sm text-muted">
        The figure at the lines that meet. A bar before it means to the left or up: type it as −.
      </p>
      <div className="grid grid-cols-[1fr_4.5rem_4.5rem] gap-x-2 gap-y-1 items-center mt-2">
        <span />
        <span className="text-sm text-muted">sideways</span>
        <span className="text-sm text-muted">up, down</span>
        {CARD_CORNERS.map((corner) => (
          <Row key={corner} corner={corner} typed={typed} onType={setTyped} />
        ))}
      </div>
      <button
        type="button"
        className="button w-full mt-3"
        data-kind="main"
        disabled={!reading || isBusy}
        onClick={() => void keep()}
      >
        Keep this reading
      </button>
    </fieldset>
  );
}

interface RowProps {
  readonly corner: string;
  readonly typed: Typed;
  readonly onType: (typed: Typed) => void;
}

function Row({ corner, typed, onType }: RowProps) {
  return (
    <>
      <span className="text-sm">{corner}</span>
      {(['x', 'y'] as const).map((axis) => {
        const key = `${corner}/${axis}`;
        return (
          <input
            key={axis}
            className="field figure px-2"
            inputMode="numeric"
            aria-label={`${corner}, ${axis === 'x' ? 'sideways' : 'up or down'}, counted in ticks`}
            value={typed[key] ?? ''}
            onChange={(event) => onType({ ...typed, [key]: event.target.value })}
          />
        );
      })}
    </>
  );
}

/** The reading in mm, or `null` while something is missing or no number. */
function readTyped(typed: Typed): CardReading | null {
  const entries = CARD_CORNERS.map((corner) => {
    const [x, y] = (['x', 'y'] as const).map((axis) => {
      const text = (typed[`${corner}/${axis}`] ?? '').trim().replace('−', '-').replace(',', '.');
      return text === '' ? NaN : Number(text) / 10;
    });
    return [corner, { x, y }] as const;
  });
  const isWhole = entries.every(([, { x, y }]) => Number.isFinite(x) && Number.isFinite(y));
  return isWhole ? (Object.fromEntries(entries) as CardReading) : null;
}
