import { itemAt } from '#core/collections/itemAt.ts';
/**
 * At most `count` of ascending forces, as evenly as they allow on a log scale, the first and the last among them.
 *
 * @example thinEvenly([1, 2, 3, 4, 5], 3) // [1, 2, 5]
 */
export function thinEvenly(forcesGf: readonly number[], count: number): readonly number[] {
  if (forcesGf.length <= count) return forcesGf;
  const first = Math.log(itemAt(forcesGf, 0));
  const step = (Math.log(forcesGf.at(-1) as number) - first) / (count - 1);
  const kept: number[] = [];
  let index = 0;
  for (let slot = 0; slot < count; slot++) {
    const wanted = first + slot * step;
    while (index + 1 < forcesGf.length && nearer(forcesGf, index, wanted)) index += 1;
    if (kept.at(-1) !== forcesGf[index]) kept.push(itemAt(forcesGf, index));
  }
  return kept;
}

function nearer(forcesGf: readonly number[], index: number, wanted: number): boolean {
  const here = Math.abs(Math.log(itemAt(forcesGf, index)) - wanted);
  return Math.abs(Math.log(itemAt(forcesGf, index + 1)) - wanted) <= here;
}
