import type { Random } from '#core/random/seededRandom.ts';
import { nestPieces, type NestOrder, type NestResult } from '#core/sheet/nest/nestPieces.ts';

/**
 * The last sheet of a layout packed once more by itself: what the sheets before it left over came in no order of its own.
 *
 * @param order as it was laid out
 * @param tries how many orders to try
 * @param isOver asked before every try but the first
 * @returns the same layout where nothing is gained
 * @example polishLast({ pieces: [], copies: 1, turns: 'none', spacingMm: 2, sheet, taken: [] }, { placements: [], sheets: 0, unplaced: [], use: 0, lastShare: 0 }, () => 0.5, 1).sheets // 0
 */
export function polishLast(
  order: NestOrder,
  result: NestResult,
  random: Random,
  tries: number,
  isOver: () => boolean = () => false,
): NestResult {
  const { placements, sheets } = result;
  if (order.copies === 0 || sheets < 2) return result;
  const isLast = ({ sheet }: { readonly sheet: number }) => sheet === sheets - 1;
  const before = placements.filter((one) => !isLast(one));
  const left = placements.filter(isLast);
  const quantities: Record<string, number> = Object.fromEntries(order.pieces.map(({ index }) => [index, 0]));
  for (const { piece } of left) quantities[piece] = (quantities[piece] ?? 0) + 1;
  let best = result;
  for (const found of nestPieces({ ...order, quantities }, random, tries, isOver)) {
    const isAll = found.sheets === 1 && found.placements.length === left.length;
    if (!isAll || found.lastShare >= best.lastShare) continue;
    const moved = found.placements.map((one) => ({ ...one, sheet: sheets - 1 }));
    best = { ...result, placements: [...before, ...moved], lastShare: found.lastShare };
  }
  return best;
}
