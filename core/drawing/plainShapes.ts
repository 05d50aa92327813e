import { readSvgPath } from '#core/drawing/svg/svgPath.ts';
import { IDENTITY } from '#core/geometry/affine.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import type { Contour } from '#core/geometry/contour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';

/**
 * A rectangle with round corners.
 *
 * @param radiusMm at most half of the shorter side; more is taken as that
 * @example drawRoundedBox({ minX: 0, minY: 0, maxX: 20, maxY: 10 }, 0).isClosed // true
 */
export function drawRoundedBox({ minX, minY, maxX, maxY }: BoxMm, radiusMm: number): Contour {
  const radius = Math.max(0, Math.min(radiusMm, (maxX - minX) / 2, (maxY - minY) / 2));
  if (radius < LENGTH_MM) return draw(`M${minX} ${minY}H${maxX}V${maxY}H${minX}Z`);
  const arc = (x: number, y: number) => `A${radius} ${radius} 0 0 1 ${x} ${y}`;
  return draw(
    `M${minX + radius} ${minY}L${maxX - radius} ${minY}${arc(maxX, minY + radius)}` +
      `L${maxX} ${maxY - radius}${arc(maxX - radius, maxY)}` +
      `L${minX + radius} ${maxY}${arc(minX, maxY - radius)}` +
      `L${minX} ${minY + radius}${arc(minX + radius, minY)}Z`,
  );
}

/**
 * An ellipse that lies straight.
 *
 * @example drawOval({ x: 0, y: 0 }, 10, 5).isClosed // true
 */
export function drawOval({ x, y }: PointMm, halfWidthMm: number, halfHeightMm: number): Contour {
  const arc = (toX: number) => `A${halfWidthMm} ${halfHeightMm} 0 0 1 ${toX} ${y}`;
  return draw(`M${x - halfWidthMm} ${y}${arc(x + halfWidthMm)}${arc(x - halfWidthMm)}Z`);
}

/**
 * A circle.
 *
 * @example drawDisc({ x: 0, y: 0 }, 3).isClosed // true
 */
export function drawDisc(middle: PointMm, radiusMm: number): Contour {
  return drawOval(middle, radiusMm, radiusMm);
}

function draw(data: string): Contour {
  return readSvgPath(data, IDENTITY)[0] as Contour;
}
