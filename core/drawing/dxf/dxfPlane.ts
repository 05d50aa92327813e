import { numberOf, type DxfRecord } from '#core/drawing/dxf/dxfGroups.ts';
import { composeAffine, type Affine } from '#core/geometry/affine.ts';

type Vector = readonly [x: number, y: number, z: number];

/** A normal nearer to the z axis than this takes y for its guide, else z. Source: DXF reference, arbitrary axis algorithm. */
const STEEP = 1 / 64;
/** Kinds whose points count in the drawing's own axes, whatever their plane. */
const OWN_AXES: ReadonlySet<string> = new Set(['LINE', 'ELLIPSE', 'SPLINE']);

/**
 * The map of an entity's own plane onto the drawing seen from above. A plane that faces away counts x to the left, a
 * tilted one is seen foreshortened.
 *
 * @param toMm of the drawing
 * Source: DXF reference, object coordinate systems, arbitrary axis algorithm.
 * @example planeOf({ type: 'CIRCLE', codes: [230], values: ['-1'], line: 1 }, [1, 0, 0, 1, 0, 0]) // [-1, 0, 0, 1, 0, 0]
 */
export function planeOf(record: DxfRecord, toMm: Affine): Affine {
  if (OWN_AXES.has(record.type)) return toMm;
  const normal = normalOf(record);
  if (normal[0] === 0 && normal[1] === 0 && normal[2] > 0) return toMm;
  const guide: Vector = Math.abs(normal[0]) < STEEP && Math.abs(normal[1]) < STEEP ? [0, 1, 0] : [0, 0, 1];
  const across = unit(cross(guide, normal));
  const up = unit(cross(normal, across));
  const height = numberOf(record, record.type === 'LWPOLYLINE' ? 38 : 30, 0);
  const own: Affine = [across[0], across[1], up[0], up[1], normal[0] * height, normal[1] * height];
  return composeAffine(toMm, own);
}

/**
 * The map of the unit circle onto an ellipse of the drawing: its first axis as it is given, its second at a right angle
 * in its plane.
 *
 * @example ellipseOf({ type: 'ELLIPSE', codes: [11, 21, 40], values: ['4', '0', '0.5'], line: 1 }, [1, 0, 0, 1, 0, 0]) // [4, 0, 0, 2, 0, 0]
 */
export function ellipseOf(record: DxfRecord, toMm: Affine): Affine {
  const n = (code: number, fallback: number) => numberOf(record, code, fallback);
  const first: Vector = [n(11, 1), n(21, 0), n(31, 0)];
  const ratio = n(40, 1);
  const second = cross(normalOf(record), first);
  const own: Affine = [first[0], first[1], second[0] * ratio, second[1] * ratio, n(10, 0), n(20, 0)];
  return composeAffine(toMm, own);
}

function normalOf(record: DxfRecord): Vector {
  const given: Vector = [numberOf(record, 210, 0), numberOf(record, 220, 0), numberOf(record, 230, 1)];
  return given.some((one) => one !== 0) ? unit(given) : [0, 0, 1];
}

function cross([a, b, c]: Vector, [d, e, f]: Vector): Vector {
  // Adding nothing turns a minus nothing, which prints badly, into nothing.
  return [b * f - c * e + 0, c * d - a * f + 0, a * e - b * d + 0];
}

function unit([x, y, z]: Vector): Vector {
  const length = Math.hypot(x, y, z);
  return [x / length, y / length, z / length];
}
