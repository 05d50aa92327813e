import { composeAffine, IDENTITY, type Affine } from '#core/geometry/affine.ts';
import type { Segment } from '#core/geometry/contour.ts';
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

/** Where an arc is wanted: the map of its plane, and its ends on the far side of it. */
export interface ArcImage {
  readonly affine: Affine;
  readonly from: PointMm;
  readonly to: PointMm;
}

/**
 * An arc as cubics of at most 45 degrees each: their greatest error is 4.3e-6 of the radius, under a micrometre on
 * any sheet. Ends are kept exactly.
 *
 * @param image the arc is drawn there instead, at the cost of one map
 */
export function arcToCubics(
  arc: EndpointArc,
  image: ArcImage = { affine: IDENTITY, from: arc.from, to: arc.to },
): readonly Segment[] {
  const centred = arcToCentre(arc);
  if (!centred) {
    const isNothing = arc.from.x === arc.to.x && arc.from.y === arc.to.y;
    return isNothing ? [] : [{ kind: 'line', from: image.from, to: image.to }];
  }
  const count = Math.max(1, Math.ceil(Math.abs(centred.sweepRad) / (Math.PI / 4) - 1e-9));
  const step = centred.sweepRad / count;
  const reach = (4 / 3) * Math.tan(step / 4);
  const onEllipse = composeAffine(image.affine, ellipseOf(centred, arc.tiltRad));
  const segments: Segment[] = [];
  let cos = Math.cos(centred.startRad);
  let sin = Math.sin(centred.startRad);
  let from = image.from;
  for (let index = 1; index <= count; index++) {
    const end = centred.startRad + index * step;
    const cosEnd = Math.cos(end);
    const sinEnd = Math.sin(end);
    const to = index === count ? image.to : place(onEllipse, cosEnd, sinEnd);
    const control1 = place(onEllipse, cos - reach * sin, sin + reach * cos);
    const control2 = place(onEllipse, cosEnd + reach * sinEnd, sinEnd - reach * cosEnd);
    segments.push({ kind: 'cubic', from, control1, control2, to });
    cos = cosEnd;
    sin = sinEnd;
    from = to;
  }
  return segments;
}

/** The map from the unit circle to the ellipse. */
function ellipseOf({ centre, radiusX, radiusY }: CentreArc, tiltRad: number): Affine {
  const cos = tiltRad === 0 ? 1 : Math.cos(tiltRad);
  const sin = tiltRad === 0 ? 0 : Math.sin(tiltRad);
  return [cos * radiusX, sin * radiusX, -sin * radiusY, cos * radiusY, centre.x, centre.y];
}

function place([a, b, c, d, e, f]: Affine, x: number, y: number): PointMm {
  return { x: a * x + c * y + e, y: b * x + d * y + f };
}
