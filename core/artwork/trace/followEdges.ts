import { HALF, type Coverage } from '#core/artwork/trace/pixels.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** Four ways to walk along the sides of a pixel, each a turn to the right of the one before: up, right, down, left. */
const STEP_X = [0, 1, 0, -1] as const;
const STEP_Y = [-1, 0, 1, 0] as const;
type Way = 0 | 1 | 2 | 3;

/**
 * The edges of what is covered, in pixels, at parts of a pixel: where the coverage between two neighbours passes a half, as
 * if it rose evenly. Outer edges turn clockwise on the screen, holes the other way. Pixels that touch at a corner are two
 * pieces. At the rim of the picture an edge runs along its pixels.
 *
 * @returns rings of at least four points; the last is joined to the first
 * Source: marching squares (Lorensen and Cline 1987, Marching cubes, in two dimensions), followed along each edge.
 * @example followEdges(pixelCoverage).map((ring) => ring.length) // [4]
 */
export function followEdges({ width, height, values }: Coverage): readonly (readonly PointMm[])[] {
  const rings: (readonly PointMm[])[] = [];
  const isSeen = new Uint8Array(values.length);
  // Read once: it is asked for at each of millions of pixels.
  const half: number = HALF;
  for (let y = 0, at = 0; y < height; y++) {
    let before = 0;
    for (let x = 0; x < width; x++, at++) {
      const here = values[at] as number;
      // Every ring passes a pixel that is covered and whose left neighbour is not.
      if (here > half && before <= half && isSeen[at] === 0) {
        rings.push(followEdge({ width, height, values }, x, y, isSeen));
      }
      before = here;
    }
  }
  return rings;
}

/** Walks once around, with what is covered at the right hand, from the left side of a pixel upwards. */
function followEdge(
  { width, height, values }: Coverage,
  startX: number,
  startY: number,
  isSeen: Uint8Array,
): readonly PointMm[] {
  const valueAt = (x: number, y: number): number =>
    x >= 0 && y >= 0 && x < width && y < height ? (values[y * width + x] as number) : -1;
  const points: PointMm[] = [];
  let [x, y] = [startX, startY];
  let way: Way = 0;
  do {
    if (way === 0) isSeen[y * width + x] = 1;
    const right = ((way + 1) & 3) as Way;
    const [outX, outY] = [-STEP_X[right], -STEP_Y[right]];
    points.push(crossing(x, y, outX, outY, valueAt(x, y), valueAt(x + outX, y + outY)));
    const [aheadX, aheadY] = [x + STEP_X[way], y + STEP_Y[way]];
    if (valueAt(aheadX, aheadY) <= HALF) {
      way = right;
    } else if (valueAt(aheadX + outX, aheadY + outY) <= HALF) {
      [x, y] = [aheadX, aheadY];
    } else {
      [x, y] = [aheadX + outX, aheadY + outY];
      way = ((way + 3) & 3) as Way;
    }
  } while (x !== startX || y !== startY || way !== 0);
  return points;
}

/** Where the coverage passes a half between the middle of a pixel and that of its neighbour; halfway at the rim. */
function crossing(
  x: number,
  y: number,
  outX: number,
  outY: number,
  inside: number,
  outside: number,
): PointMm {
  const share = outside < 0 ? 0.5 : (inside - HALF) / (inside - outside);
  return { x: x + 0.5 + share * outX, y: y + 0.5 + share * outY };
}
