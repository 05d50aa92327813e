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

/**
 * An arc as cubics of at most 45 degrees each: their greatest error is 4.3e-6 of the radius, under a micrometre on
 * any sheet. Ends are kept exactly.
 */
export function arcToCubics(arc: EndpointArc): readonly Segment[] {
  const centred = arcToCentre(arc);
  if (!centred) {
    const isNothing = arc.from.x === arc.to.x && arc.from.y === arc.to.y;
    return isNothing ? [] : [{ kind: 'line', from: arc.from, to: arc.to }];
  }
  const count = Math.max(1, Math.ceil(Math.abs(centred.sweepRad) / (Math.PI / 4) - 1e-9));
  const step = centred.sweepRad / count;
  const reach = (4 / 3) * Math.tan(step / 4);
  return Array.from({ length: count }, (_, index) => {
    const start = centred.startRad + index * step;
    const end = start + step;
    const place = (x: number, y: number) => placeOnEllipse(centred, arc.tiltRad, x, y);
    return {
      kind: 'cubic' as const,
      from: index === 0 ? arc.from : place(Math.cos(start), Math.sin(start)),
      control1: place(Math.cos(start) - reach * Math.sin(start), Math.sin(start) + reach * Math.cos(start)),
      control2: place(Math.cos(end) + reach * Math.sin(end), Math.sin(end) - reach * Math.cos(end)),
      to: index === count - 1 ? arc.to : place(Math.cos(end), Math.sin(end)),
    };
  });
}

function placeOnEllipse(arc: CentreArc, tiltRad: number, x: number, y: number): PointMm {
  const cos = Math.cos(tiltRad);
  const sin = Math.sin(tiltRad);
  return {
    x: arc.centre.x + cos * arc.radiusX * x - sin * arc.radiusY * y,
    y: arc.centre.y + sin * arc.radiusX * x + cos * arc.radiusY * y,
  };
}
