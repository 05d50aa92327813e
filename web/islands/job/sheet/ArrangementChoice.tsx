import { usualArrangement } from '#core/sheet/arrangePieces.ts';
import type { Arrangement, Layout } from '#core/sheet/layout.ts';
import { RadioRow } from '#web/islands/shared/RadioRow.tsx';
import type { Design } from '#web/islands/job/useDesign.ts';

interface Props {
  readonly layout: Layout;
  readonly design: Design;
  readonly isBusy: boolean;
  readonly onSet: (change: Partial<Layout>) => void;
}

const OPTIONS = [
  { value: 'rows', words: 'In rows' },
  { value: 'packed', words: 'Close together' },
] as const satisfies readonly { readonly value: Arrangement; readonly words: string }[];

/** In straight rows, or as close together as they go. */
export function ArrangementChoice({ layout, design, isBusy, onSet }: Props) {
  const chosen = layout.arrangement ?? usualArrangement(design.layout?.pieces ?? [], layout.carrier);
  return (
    <div className="mt-2">
      <RadioRow
        label="How pieces are laid out"
        options={OPTIONS}
        value={chosen}
        isBusy={isBusy}
        onChoose={(arrangement) => onSet({ arrangement })}
      />
    </div>
  );
}
