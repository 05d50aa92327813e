import { applyEdits } from '#core/checks/applyEdits.ts';
import type { Drawing } from '#core/drawing/drawing.ts';
import type { JobDesign } from '#core/job/layOutJob.ts';
import type { Layout } from '#core/sheet/layout.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';

type Design = Pick<JobDesign, 'roles' | 'lineRoles' | 'edits' | 'layout'>;

/**
 * The layout after roles or mends changed. Pieces that lie by themselves are told by their numbers: when the drawing
 * falls into other pieces, none of their places can be trusted, and they are laid out anew. A whole drawing stays where
 * its middle is.
 *
 * @param drawing as it was read, without mends
 * @example fitLayout(drawing, job, job).placements.length // 1
 */
export function fitLayout(drawing: Drawing, before: Design, after: Design): Layout {
  const { layout } = after;
  if (layout.isWhole || layout.placements.length === 0) return layout;
  const linesOf = (design: Design) =>
    splitPieces(applyEdits(drawing, design.edits), design, false).map(({ lineIds }) => lineIds.join());
  const [old, fresh] = [linesOf(before), linesOf(after)];
  const isSame = old.length === fresh.length && old.every((lines, index) => lines === fresh[index]);
  return isSame ? layout : { ...layout, placements: [], quantities: {} };
}
