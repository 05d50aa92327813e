import { firstFreeId } from '#core/checks/firstFreeId.ts';
import type { DrawnContour } from '#core/drawing/drawing.ts';
import { boundPoints, cornersOf, middleOf } from '#core/geometry/box.ts';
import { subtractRings, type Rings } from '#core/geometry/clip.ts';
import { startOf } from '#core/geometry/contour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { isInside } from '#core/geometry/polygon.ts';
import { ringOf } from '#core/geometry/ringOf.ts';
import { ringToContour } from '#core/geometry/ringToContour.ts';

/**
 * Holds the islands within openings of a stencil by two bars each, one to either side across the narrower way: what is
 * cut away becomes the opening without island and bars.
 *
 * @param lineIds outlines of openings that have islands in them
 * @returns lines where opening and islands are replaced by the parts left between the bars
 * @example bridgeIslands(drawing.contours, [drawing.contours[1].id], 2).length // 2
 */
export function bridgeIslands(
  contours: readonly DrawnContour[],
  lineIds: readonly number[],
  widthMm: number,
): readonly DrawnContour[] {
  let id = firstFreeId({ contours });
  const gone = new Set<number>();
  const added: DrawnContour[] = [];
  for (const opening of contours.filter((line) => lineIds.includes(line.id) && line.contour.isClosed)) {
    const outer = ringOf(opening.contour);
    const islands = contours.filter(
      ({ id: own, contour }) => own !== opening.id && contour.isClosed && isInside(startOf(contour), outer),
    );
    if (islands.length === 0) continue;
    const rings = islands.map(({ contour }) => ringOf(contour));
    const bars = rings.map((ring) => barAcross(ring, outer, widthMm));
    const parts = subtractRings([outer], [...rings, ...bars]);
    for (const line of [opening, ...islands]) gone.add(line.id);
    parts.forEach((ring, index) =>
      added.push({ ...opening, id: index === 0 ? opening.id : id++, contour: ringToContour(ring) }),
    );
  }
  return [...contours.filter((line) => !gone.has(line.id)), ...added];
}

/** A bar through the middle of an island, across the opening where it is narrower. */
function barAcross(island: readonly PointMm[], outer: readonly PointMm[], widthMm: number): Rings[number] {
  const inner = boundPoints(island);
  const around = boundPoints(outer);
  const half = widthMm / 2;
  const { x, y } = middleOf(inner);
  const sideways = inner.minX - around.minX + around.maxX - inner.maxX;
  const upright = inner.minY - around.minY + around.maxY - inner.maxY;
  return cornersOf(
    sideways < upright
      ? { minX: around.minX - 1, minY: y - half, maxX: around.maxX + 1, maxY: y + half }
      : { minX: x - half, minY: around.minY - 1, maxX: x + half, maxY: around.maxY + 1 },
  );
}
