import { LINE, LINE_STEP, CUBIC_STEP, type Contour } from '#core/geometry/contour.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** x' = a x + c y + e, y' = b x + d y + f: the six numbers of an SVG matrix, in its order. */
export type Affine = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const IDENTITY: Affine = [1, 0, 0, 1, 0, 0];

/**
 * The map that enlarges by a factor.
 *
 * @example scaling(2) // [2, 0, 0, 2, 0, 0]
 */
export function scaling(factor: number): Affine {
  return [factor, 0, 0, factor, 0, 0];
}

/**
 * The map that does `inner` first and `outer` after it.
 *
 * @example composeAffine([1, 0, 0, 1, 5, 0], [2, 0, 0, 2, 0, 0]) // [2, 0, 0, 2, 5, 0]
 */
export function composeAffine(outer: Affine, inner: Affine): Affine {
  // By index: taking an array apart goes through its iterator, and large drawings compose a map for every arc.
  const a = outer[0];
  const b = outer[1];
  const c = outer[2];
  const d = outer[3];
  return [
    a * inner[0] + c * inner[1],
    b * inner[0] + d * inner[1],
    a * inner[2] + c * inner[3],
    b * inner[2] + d * inner[3],
    a * inner[4] + c * inner[5] + outer[4],
    b * inner[4] + d * inner[5] + outer[5],
  ];
}

/**
 * The map that leads back.
 *
 * @throws RangeError for a map that flattens everything
 * @example invertAffine([2, 0, 0, 4, 6, 8]) // [0.5, 0, 0, 0.25, -3, -2]
 */
export function invertAffine([a, b, c, d, e, f]: Affine): Affine {
  const size = a * d - b * c;
  if (size === 0) throw new RangeError('a map that flattens everything leads nowhere back');
  // Nothing is taken from nothing, so that no minus nothing comes out.
  return [d / size, (0 - b) / size, (0 - c) / size, a / size, (c * f - d * e) / size, (b * e - a * f) / size];
}

/**
 * The image of a point.
 *
 * @example mapPoint([2, 0, 0, 2, 1, 0], { x: 3, y: 4 }) // { x: 7, y: 8 }
 */
export function mapPoint([a, b, c, d, e, f]: Affine, point: PointMm): PointMm {
  return { x: a * point.x + c * point.y + e, y: b * point.x + d * point.y + f };
}

/**
 * The image of a contour: exact, since Bézier segments map by their control points.
 *
 * @example mapContour([1, 0, 0, 1, 2, 3], { path: [0, 0, 0, 1, 1], isClosed: false }).path.slice(0, 2) // [2, 3]
 */
export function mapContour(affine: Affine, contour: Contour): Contour {
  const [a, b, c, d, e, f] = affine;
  const { path, isClosed } = contour;
  const image = path.slice();
  const place = (at: number) => {
    const x = path[at] as number;
    const y = path[at + 1] as number;
    image[at] = a * x + c * y + e;
    image[at + 1] = b * x + d * y + f;
  };
  place(0);
  for (let at = 2; at < path.length;) {
    const end = at + (path[at] === LINE ? LINE_STEP : CUBIC_STEP);
    for (at += 1; at < end; at += 2) place(at);
  }
  return { path: image, isClosed };
}
