import { firstFreeId } from '#core/checks/firstFreeId.ts';
import type { DrawnContour } from '#core/drawing/drawing.ts';
import { boundPoints } from '#core/geometry/box.ts';
import { subtractRings, type Rings } from '#core/geometry/clip.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { isInside } from '#core/geometry/polygon.ts';
import { ringToContour } from '#core/geometry/ringToContour.ts';

/**
 * Holds the islands within openings of a stencil by two bars each, one to either side across the narrower way: what is
 * cut away becomes the opening without island and bars.
 *
 * @param lineIds outlines of openings that have islands in them
 * @returns lines where opening and islands are replaced by the parts left between the bars
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
    const outer = ringOf(opening);
    const islands = contours.filter(
      (line) =>
        line.id !== opening.id && line.contour.isClosed && isInside(ringOf(line)[0] as PointMm, outer),
    );
    if (islands.length === 0) continue;
    const rings = islands.map(ringOf);
    const bars = rings.map((ring) => barAcross(ring, outer, widthMm));
    const parts = subtractRings([outer], [...rings, ...bars]);
    for (const line of [opening, ...islands]) gone.add(line.id);
    parts.forEach((ring, index) =>
      added.push({ ...opening, id: index === 0 ? opening.id : id++, contour: ringToContour(ring) }),
    );
  }
  return [...contours.filter((line) => !gone.has(line.id)), ...added];
}

function ringOf({ contour }: DrawnContour): readonly PointMm[] {
  return flattenContour(contour).slice(0, -1);
}

/** A bar through the middle of an island, across the opening where it is narrower. */
function barAcross(island: readonly PointMm[], outer: readonly PointMm[], widthMm: number): Rings[number] {
  const inner = boundPoints(island);
  const around = boundPoints(outer);
  const half = widthMm / 2;
  const [x, y] = [(inner.minX + inner.maxX) / 2, (inner.minY + inner.maxY) / 2];
  const sideways = inner.minX - around.minX + around.maxX - inner.maxX;
  const upright = inner.minY - around.minY + around.maxY - inner.maxY;
  return sideways < upright
    ? rectangle(around.minX - 1, y - half, around.maxX + 1, y + half)
    : rectangle(x - half, around.minY - 1, x + half, around.maxY + 1);
}

function rectangle(minX: number, minY: number, maxX: number, maxY: number): Rings[number] {
  return [
    { x: minX, y: minY },
    { x: maxX, y: minY },
    { x: maxX, y: maxY },
    { x: minX, y: maxY },
  ];
}
