import type { Drawing, DrawnContour } from '#core/drawing/drawing.ts';
import { isCutRole, roleOf, type GivenRoles } from '#core/drawing/roles/lineRoles.ts';
import { cornersOf } from '#core/geometry/box.ts';
import { strokeLines, uniteRings, type Rings } from '#core/geometry/clip.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { ringOf } from '#core/geometry/ringOf.ts';
import type { Piece } from '#core/sheet/nest/splitPieces.ts';

/** A piece as it is laid beside others. */
export interface CoveredPiece extends Pick<Piece, 'index' | 'box'> {
  /** What it covers: its outermost outlines. */
  readonly silhouette: Rings;
}

/** Silhouettes need no cutting tolerance, mm. */
const SILHOUETTE_MM = 0.1;
/** A lone open line covers this much, mm. */
const LINE_WIDTH_MM = 0.2;
/** A piece of more lines is laid out by its box: uniting them would take longer than it saves. */
const MOST_UNITED = 2000;

/**
 * What each piece of a drawing covers with the lines its box is around.
 *
 * @example coverPieces(drawing, given, []).length // 0
 */
export function coverPieces(
  drawing: Drawing,
  given: GivenRoles,
  pieces: readonly Piece[],
): readonly CoveredPiece[] {
  const byId = new Map(drawing.contours.map((line) => [line.id, line]));
  return pieces.map(({ index, box, lineIds }) => {
    const lines = lineIds.map((id) => byId.get(id) as DrawnContour);
    const cut = lines.filter((line) => isCutRole(roleOf(line, given)));
    const shown = cut.length > 0 ? cut : lines;
    return { index, box, silhouette: shown.length > MOST_UNITED ? [cornersOf(box)] : coverOf(shown) };
  });
}

function coverOf(lines: readonly DrawnContour[]): Rings {
  const closed = lines.filter(({ contour }) => contour.isClosed);
  const open = lines.filter(({ contour }) => !contour.isClosed);
  const bands = strokeLines(
    open.map(({ contour }) => flattenContour(contour, SILHOUETTE_MM)),
    LINE_WIDTH_MM,
  );
  return uniteRings([...closed.map(({ contour }) => ringOf(contour, SILHOUETTE_MM)), ...bands]);
}
