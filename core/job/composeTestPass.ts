import { makeTestPiece } from '#core/dialIn/testPiece.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import type { Pass, Stroke } from '#core/passes/plan.ts';
import type { CutPass } from '#core/program/cutProgram.ts';

/** Between two test pieces, mm. */
const GAP_MM = 4;

/**
 * A test piece for every blade pass of a plan, side by side in the corner that a job keeps free, each with the values
 * of its pass: cut and looked at before the sheet is.
 *
 * @returns as many as the corner takes; none for a plan that only creases
 * @example composeTestPass(plan.passes, { minX: 0, minY: 0, maxX: 20, maxY: 20 }).length // 1
 */
export function composeTestPass(passes: readonly Pass[], corner: BoxMm): readonly CutPass[] {
  const piece = makeTestPiece('square');
  const bladed = passes.filter(
    (pass, index) =>
      pass.role !== 'crease' &&
      passes.findIndex((other) => other.values.force === pass.values.force && other.role !== 'crease') ===
        index,
  );
  const room = Math.floor((corner.maxX - corner.minX + GAP_MM) / (piece.widthMm + GAP_MM));
  return bladed.slice(0, room).map(({ values, seat }, index) => {
    const x = corner.minX + 1 + index * (piece.widthMm + GAP_MM);
    const y = (corner.minY + corner.maxY - piece.heightMm) / 2;
    const strokes = piece.lines.flatMap(({ points }, line): readonly Stroke[] =>
      Array.from({ length: values.passes }, (_, repeat) => ({
        contourId: line,
        repeat,
        points: points.map((point) => ({ x: point.x + x, y: point.y + y })),
        isTab: false,
      })),
    );
    return { values, strokes, seat };
  });
}
