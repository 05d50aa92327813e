import { usualArrangement } from '#core/sheet/arrangePieces.ts';
import { ARRANGEMENTS, type Arrangement, type Layout } from '#core/sheet/layout.ts';
import type { Design } from '#web/islands/job/useDesign.ts';

interface Props {
  readonly layout: Layout;
  readonly design: Design;
  readonly isBusy: boolean;
  readonly onSet: (change: Partial<Layout>) => void;
}

const WORDS: Readonly<Record<Arrangement, string>> = { rows: 'In rows', packed: 'Close together' };

/** In straight rows, or as close together as they go. */
export function ArrangementChoice({ layout, design, isBusy, onSet }: Props) {
  const chosen = layout.arrangement ?? usualArrangement(design.layout?.pieces ?? [], layout.carrier);
  return (
    <div className="grid grid-cols-2 gap-1.5 mt-2" role="radiogroup" aria-label="How pieces are laid out">
      {ARRANGEMENTS.map((arrangement) => (
        <button
          key={arrangement}
          type="button"
          role="radio"
          aria-checked={chosen === arrangement}
          disabled={isBusy}
          onClick={() => onSet({ arrangement })}
          className="button px-2 font-normal aria-checked:border-verdigris aria-checked:bg-verdigris-pale aria-checked:font-semibold"
        >
          {WORDS[arrangement]}
        </button>
      ))}
    </div>
  );
}
