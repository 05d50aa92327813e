import { groupBy } from '#core/collections/groupBy.ts';
import type { DrawnContour, ShapePaint } from '#core/drawing/drawing.ts';
import { coverStroke, fillRings, uniteRings, type Rings } from '#core/geometry/clip.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { ringOf } from '#core/geometry/ringOf.ts';

/** What a line covers whose width is not known, mm. */
const HAIR_MM = 0.1;
const ROUND_PEN: Pick<ShapePaint, 'cap' | 'join' | 'miterLimit'> = {
  cap: 'round',
  join: 'round',
  miterLimit: 4,
};

/**
 * What lines paint: fills by their own rule, open paths that are filled among them, and strokes with their own caps and
 * joins. Dashes count as drawn through.
 *
 * @param toleranceMm greatest distance between curve and ring; that of a cut line when it is left out
 * @example coverLines(drawing.contours).length // 4
 */
export function coverLines(lines: readonly DrawnContour[], toleranceMm?: number): Rings {
  const painted = [...groupBy(lines, ({ shape }) => shape).values()].flatMap((own): Rings => {
    const [first] = own;
    if (!first) return [];
    const ways = own.map(({ contour }) => flattenContour(contour, toleranceMm));
    const fill = first.fillColour === null ? [] : fillRings(ways, first.paint?.isEvenOdd ?? true);
    if (first.strokeColour === null) return fill;
    const widthMm = Math.max(HAIR_MM, first.strokeWidthMm ?? 0);
    const strokes = ways.flatMap((way, index) =>
      coverStroke(way, own[index]?.contour.isClosed === true, widthMm, first.paint ?? ROUND_PEN),
    );
    return [...fill, ...strokes];
  });
  return uniteRings(painted);
}

/**
 * What lines enclose or run along, whatever they are painted with: outlines whole, open lines as a hair.
 *
 * @example encloseLines(drawing.contours).length // 1
 */
export function encloseLines(lines: readonly DrawnContour[]): Rings {
  return uniteRings(
    lines.flatMap(({ contour }) =>
      contour.isClosed ? [ringOf(contour)] : coverStroke(flattenContour(contour), false, HAIR_MM, ROUND_PEN),
    ),
  );
}
