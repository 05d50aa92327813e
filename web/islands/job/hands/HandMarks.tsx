import { Undo2 } from 'lucide-react';
import type { ShownLayout } from '#core/job/describeLayout.ts';
import type { Placement } from '#core/sheet/layout.ts';
import { PlacedShape } from '#web/islands/job/hands/PlacedShape.tsx';
import type { Hands } from '#web/islands/job/hands/useHands.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly layout: ShownLayout;
  readonly placements: readonly Placement[];
  readonly hands: Hands;
  readonly sheetIndex: number;
}

/** What is held, where it is dragged to, and what lies over each other. */
export function HandMarks({ layout: { pieces, touching }, placements, hands, sheetIndex }: Props) {
  const { held, shift } = hands;
  const draw = (at: number, by = { xMm: 0, yMm: 0 }) => {
    const placement = placements[at];
    if (placement?.sheet !== sheetIndex) return null;
    const moved = { ...placement, xMm: placement.xMm + by.xMm, yMm: placement.yMm + by.yMm };
    return <PlacedShape key={at} piece={pieces[placement.piece]} placement={moved} />;
  };
  return (
    <>
      <g fill="var(--color-ember)" fillOpacity="0.25" stroke="var(--color-ember)" strokeWidth="2">
        {touching.map((at) => draw(at))}
      </g>
      <g
        fill="var(--color-verdigris-pale)"
        fillOpacity="0.55"
        stroke="var(--color-verdigris)"
        strokeWidth="2.5"
        strokeDasharray="6 3"
      >
        {held.map((at) => draw(at, shift))}
      </g>
    </>
  );
}

/** How pieces are moved, and the way back. */
export function HandHelp({ hands: { canUndo, undo } }: { readonly hands: Hands }) {
  return (
    <div className="flex items-start gap-3 mt-2">
      <p className="text-sm text-muted grow">
        Drag a piece, or choose it by a click and move it by the arrow keys: {say('1 mm')}, with Shift{' '}
        {say('10 mm')}, with Alt {say('0.1 mm')}. R turns it, Delete takes it off, full stop and comma go to
        the next and the last.
      </p>
      <button type="button" className="button px-3 shrink-0" disabled={!canUndo} onClick={undo}>
        <Undo2 size={18} aria-hidden /> Undo
      </button>
    </div>
  );
}
