import { ROUNDING } from '#core/units/rounding.ts';
import { composeAffine, IDENTITY, type Affine } from '#core/geometry/affine.ts';
import { CUBIC, LINE } from '#core/geometry/contour.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** An elliptical arc as SVG paths give it. Angles in radians. */
export interface EndpointArc {
  readonly from: PointMm;
  readonly to: PointMm;
  readonly radiusX: number;
  readonly radiusY: number;
  readonly tiltRad: number;
  readonly isLarge: boolean;
  readonly isSweep: boolean;
}

/** The same arc around its centre. */
export interface CentreArc {
  readonly centre: PointMm;
  readonly radiusX: number;
  readonly radiusY: number;
  readonly startRad: number;
  readonly sweepRad: number;
}

/**
 * Endpoint form to centre form, with radii scaled up when they cannot span the ends.
 *
 * @returns `null` when the ends are one point or a radius is 0: then the arc is nothing, or a straight line
 * Source: W3C SVG 1.1 (second edition), appendix F.6.5 and F.6.6.
 * @example arcToCentre({ from: { x: 0, y: 0 }, to: { x: 0, y: 0 }, radiusX: 1, radiusY: 1, tiltRad: 0, isLarge: false, isSweep: true }) // null
 */
export function arcToCentre(arc: EndpointArc): CentreArc | null {
  const { from, to, tiltRad } = arc;
  if ((from.x === to.x && from.y === to.y) || arc.radiusX === 0 || arc.radiusY === 0) return null;
  const cos = Math.cos(tiltRad);
  const sin = Math.sin(tiltRad);
  const halfX = (from.x - to.x) / 2;
  const halfY = (from.y - to.y) / 2;
  const x1 = cos * halfX + sin * halfY;
  const y1 = -sin * halfX + cos * halfY;
  const grow = Math.sqrt(Math.max(1, (x1 / arc.radiusX) ** 2 + (y1 / arc.radiusY) ** 2));
  const radiusX = Math.abs(arc.radiusX) * grow;
  const radiusY = Math.abs(arc.radiusY) * grow;
  const across = (radiusX * y1) ** 2 + (radiusY * x1) ** 2;
  const sign = arc.isLarge === arc.isSweep ? -1 : 1;
  const factor = sign * Math.sqrt(Math.max(0, ((radiusX * radiusY) ** 2 - across) / across));
  const cx = (factor * radiusX * y1) / radiusY;
  const cy = (-factor * radiusY * x1) / radiusX;
  const startRad = Math.atan2((y1 - cy) / radiusY, (x1 - cx) / radiusX);
  const endRad = Math.atan2((-y1 - cy) / radiusY, (-x1 - cx) / radiusX);
  let sweepRad = endRad - startRad;
  if (arc.isSweep && sweepRad < 0) sweepRad += 2 * Math.PI;
  if (!arc.isSweep && sweepRad > 0) sweepRad -= 2 * Math.PI;
  const centre = {
    x: cos * cx - sin * cy + (from.x + to.x) / 2,
    y: sin * cx + cos * cy + (from.y + to.y) / 2,
  };
  return { centre, radiusX, radiusY, startRad, sweepRad };
}

/** Where an arc is wanted: the map of its plane, and its end on the far side of it. */
export interface ArcImage {
  readonly affine: Affine;
  readonly to: PointMm;
}

/**
 * Draws an arc as cubics of at most 45 degrees each: their greatest error is 4.3e-6 of the radius, under a micrometre
 * on any sheet. Its end is kept exactly; an arc without a radius is a straight line.
 *
 * @param path the packed path that it goes on from; it gets the segments from place `at` on
 * @param image the arc is drawn there instead, at the cost of one map
 * @returns the place after the last number
 * @example arcToCubics([], 0, { from: { x: 0, y: 0 }, to: { x: 5, y: 0 }, radiusX: 0, radiusY: 0, tiltRad: 0, isLarge: false, isSweep: true }) // 3
 */
export function arcToCubics(
  path: number[],
  at: number,
  arc: EndpointArc,
  image: ArcImage = { affine: IDENTITY, to: arc.to },
): number {
  const { to } = image;
  const centred = arcToCentre(arc);
  if (!centred) {
    const isNothing = arc.from.x === arc.to.x && arc.from.y === arc.to.y;
    if (isNothing) return at;
    path[at++] = LINE;
    path[at++] = to.x;
    path[at++] = to.y;
    return at;
  }
  const count = Math.max(1, Math.ceil(Math.abs(centred.sweepRad) / (Math.PI / 4) - ROUNDING));
  const step = centred.sweepRad / count;
  const reach = (4 / 3) * Math.tan(step / 4);
  const onEllipse = composeAffine(image.affine, ellipseOf(centred, arc.tiltRad));
  const a = onEllipse[0];
  const b = onEllipse[1];
  const c = onEllipse[2];
  const d = onEllipse[3];
  const e = onEllipse[4];
  const f = onEllipse[5];
  let cos = Math.cos(centred.startRad);
  let sin = Math.sin(centred.startRad);
  for (let index = 1; index <= count; index++) {
    const end = centred.startRad + index * step;
    const cosEnd = Math.cos(end);
    const sinEnd = Math.sin(end);
    const x1 = cos - reach * sin;
    const y1 = sin + reach * cos;
    const x2 = cosEnd + reach * sinEnd;
    const y2 = sinEnd - reach * cosEnd;
    const isLast = index === count;
    path[at++] = CUBIC;
    path[at++] = a * x1 + c * y1 + e;
    path[at++] = b * x1 + d * y1 + f;
    path[at++] = a * x2 + c * y2 + e;
    path[at++] = b * x2 + d * y2 + f;
    path[at++] = isLast ? to.x : a * cosEnd + c * sinEnd + e;
    path[at++] = isLast ? to.y : b * cosEnd + d * sinEnd + f;
    cos = cosEnd;
    sin = sinEnd;
  }
  return at;
}

/** The map from the unit circle to the ellipse. */
function ellipseOf({ centre, radiusX, radiusY }: CentreArc, tiltRad: number): Affine {
  const cos = tiltRad === 0 ? 1 : Math.cos(tiltRad);
  const sin = tiltRad === 0 ? 0 : Math.sin(tiltRad);
  return [cos * radiusX, sin * radiusX, -sin * radiusY, cos * radiusY, centre.x, centre.y];
}
