import { drawFor } from '#devices/chance.ts';

/** A smooth random surface over the sheet, about -1 to 1, that changes over some centimetres. */
export function unevenness(seed: number, xMm: number, yMm: number): number {
  const cell = 25;
  const left = Math.floor(xMm / cell);
  const top = Math.floor(yMm / cell);
  const u = smooth(xMm / cell - left);
  const v = smooth(yMm / cell - top);
  const at = (dx: number, dy: number) => 2 * drawFor(seed, `${left + dx}/${top + dy}`) - 1;
  const upper = at(0, 0) * (1 - u) + at(1, 0) * u;
  const lower = at(0, 1) * (1 - u) + at(1, 1) * u;
  return upper * (1 - v) + lower * v;
}

function smooth(share: number): number {
  return share * share * (3 - 2 * share);
}
