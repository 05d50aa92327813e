import { readFileSync } from 'node:fs';
import { PNG } from 'pngjs';

interface Picture {
  readonly width: number;
  readonly height: number;
  readonly isInk: (x: number, y: number) => boolean;
}

function readPicture(file: string): Picture {
  const { width, height, data } = PNG.sync.read(readFileSync(file));
  return { width, height, isInk: (x, y) => (data[4 * (y * width + x)] ?? 255) < 128 };
}

/** The ink of a picture, moved so that its box starts at 0, 0. */
function inkOf(picture: Picture): {
  readonly points: readonly (readonly [number, number])[];
  readonly size: readonly [number, number];
} {
  const points: [number, number][] = [];
  for (let y = 0; y < picture.height; y++)
    for (let x = 0; x < picture.width; x++) if (picture.isInk(x, y)) points.push([x, y]);
  const left = points.reduce((least, [x]) => Math.min(least, x), Infinity);
  const top = points.reduce((least, [, y]) => Math.min(least, y), Infinity);
  const moved = points.map(([x, y]) => [x - left, y - top] as const);
  const right = moved.reduce((most, [x]) => Math.max(most, x), 0);
  const bottom = moved.reduce((most, [, y]) => Math.max(most, y), 0);
  return { points: moved, size: [right + 1, bottom + 1] };
}

/** The share of points that have a point of the other set within `reach` pixels. */
function shareNear(
  points: readonly (readonly [number, number])[],
  others: readonly (readonly [number, number])[],
  reach: number,
): number {
  const near = new Set<number>();
  for (const [x, y] of others) {
    for (let dx = -reach; dx <= reach; dx++)
      for (let dy = -reach; dy <= reach; dy++) near.add((x + dx) * 100_000 + y + dy);
  }
  return points.filter(([x, y]) => near.has(x * 100_000 + y)).length / points.length;
}

/**
 * Compares the ink of two pictures of lines, each moved so that its box starts at 0, 0.
 *
 * @param reach pixels within which a point has found its like
 * @returns how much the boxes differ in size, in pixels; the share of each picture's ink that the other has too
 */
export function compareInk(first: string, second: string, reach: number) {
  const one = inkOf(readPicture(first));
  const two = inkOf(readPicture(second));
  return {
    sizeDiff: Math.max(Math.abs(one.size[0] - two.size[0]), Math.abs(one.size[1] - two.size[1])),
    shareOfFirst: shareNear(one.points, two.points, reach),
    shareOfSecond: shareNear(two.points, one.points, reach),
  };
}
