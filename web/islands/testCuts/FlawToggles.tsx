import { FLAW_NAMES, FLAWS, type Flaw } from '#core/stack/depthGrade.ts';

interface Props {
  readonly label: string;
  readonly flaws: readonly Flaw[];
  readonly isBusy?: boolean;
  readonly onToggle: (flaw: Flaw) => void;
}

/** What else was seen of a cut; any of them, or none. */
export function FlawToggles({ label, flaws, isBusy = false, onToggle }: Props) {
  return (
    <div role="group" aria-label={label} className="flex flex-wrap gap-2 mt-2">
      {FLAWS.map((flaw) => (
        <button
          key={flaw}
          type="button"
          disabled={isBusy}
          aria-pressed={flaws.includes(flaw)}
          onClick={() => onToggle(flaw)}
          className="button px-3 font-normal aria-pressed:bg-ink aria-pressed:text-on-ink aria-pressed:font-semibold"
        >
          {FLAW_NAMES[flaw]}
        </button>
      ))}
    </div>
  );
}
