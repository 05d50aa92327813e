import { applyEdits } from '#core/checks/applyEdits.ts';
import type { Drawing } from '#core/drawing/drawing.ts';
import type { JobDesign } from '#core/job/layOutJob.ts';
import { sizeFactorOf } from '#core/job/sizeJob.ts';
import { placedBoxes, type Layout } from '#core/sheet/layout.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';

type Design = Pick<JobDesign, 'roles' | 'lineRoles' | 'edits' | 'layout' | 'sheet'>;

/**
 * The layout after roles or mends changed. Pieces that lie by themselves are told by their numbers: when the drawing
 * falls into other pieces, or pieces of another size, none of their places can be trusted, and they are laid out anew.
 * A whole drawing stays where its middle is, unless a mend such as a frame made it reach over the usable area: then it
 * moves back in, where it fits.
 *
 * @param drawing as it was read, without mends
 * @example fitLayout(drawing, job, job).placements.length // 1
 */
export function fitLayout(drawing: Drawing, before: Design, after: Design): Layout {
  const { layout } = after;
  if (layout.placements.length === 0) return layout;
  // Roles alone make nothing larger.
  if (layout.isWhole) return before.edits === after.edits ? layout : moveInside(drawing, after);
  const isSized = sizeFactorOf(before.edits) !== sizeFactorOf(after.edits);
  const linesOf = (design: Design) =>
    splitPieces(applyEdits(drawing, design.edits), design, false).map(({ lineIds }) => lineIds.join());
  const [old, fresh] = [linesOf(before), linesOf(after)];
  const isSame =
    !isSized && old.length === fresh.length && old.every((lines, index) => lines === fresh[index]);
  return isSame ? layout : { ...layout, placements: [], quantities: {} };
}

/** Every copy of a whole drawing moved as little as brings it inside; as it lies where it fits already, or never will. */
function moveInside(drawing: Drawing, design: Design): Layout {
  const { layout, sheet } = design;
  const pieces = splitPieces(applyEdits(drawing, design.edits), design, true);
  const { marginMm, widthMm, heightMm } = sheet;
  const placements = layout.placements.map((placement) => {
    const [box] = placedBoxes({ placements: [placement] }, pieces, placement.sheet);
    if (!box) return placement;
    const byX = shiftInto(box.minX, box.maxX, marginMm, widthMm - marginMm);
    const byY = shiftInto(box.minY, box.maxY, marginMm, heightMm - marginMm);
    return byX === 0 && byY === 0
      ? placement
      : { ...placement, xMm: placement.xMm + byX, yMm: placement.yMm + byY };
  });
  const isMoved = placements.some((placement, index) => placement !== layout.placements[index]);
  return isMoved ? { ...layout, placements } : layout;
}

/** How far a stretch must move to lie in another; 0 where it does, or is longer. */
function shiftInto(from: number, to: number, least: number, most: number): number {
  if (to - from > most - least) return 0;
  return from < least ? least - from : Math.min(0, most - to);
}
