import { describe, expect, it } from 'vitest';
import { arrangePieces, usualArrangement, type ArrangedPiece } from '#core/sheet/arrangePieces.ts';
import { PLAIN_LAYOUT } from '#core/sheet/chooseSheet.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import type { NestResult } from '#core/sheet/nest/nestPieces.ts';

const sheet = { name: 'A4', widthMm: 210, heightMm: 297, marginMm: 6 };
const rectangle = (
  index: number,
  width: number,
  height: number,
  drawing: number | null = 0,
): ArrangedPiece => ({
  index,
  drawing,
  box: { minX: 0, minY: 0, maxX: width, maxY: height },
  silhouette: [
    [
      { x: 0, y: 0 },
      { x: width, y: 0 },
      { x: width, y: height },
      { x: 0, y: height },
    ],
  ],
});
const arrange = (pieces: readonly ArrangedPiece[], change: object) => {
  let best: NestResult | null = null;
  const order = { pieces, layout: { ...PLAIN_LAYOUT, ...change }, sheet, taken: [] };
  for (const result of arrangePieces(order, seededRandom(1), 2)) best = result;
  return best as NestResult | null;
};

describe('laying out as a job wants it', () => {
  it('packs rectangles no worse than rows, where they just fit', () => {
    // Five and seven of them fill 198 by 285 mm to the last hundredth.
    const best = arrange([rectangle(0, 38, 39)], { copies: 0, arrangement: 'packed', turns: 'none' })!;
    expect(best.placements.length).toBe(35);
  });

  it('takes rows for equal pieces and on cards, and packs others', () => {
    expect(usualArrangement([rectangle(0, 20, 30), rectangle(1, 20, 30)], null)).toBe('rows');
    expect(usualArrangement([rectangle(0, 20, 30), rectangle(1, 25, 30)], null)).toBe('packed');
    const carrier = {
      widthMm: 90,
      heightMm: 60,
      radiusMm: 4,
      marginMm: 5,
      hole: null,
      role: 'through',
      count: 1,
    } as const;
    expect(usualArrangement([rectangle(0, 20, 30), rectangle(1, 25, 30)], carrier)).toBe('rows');
  });

  it('packs on cards too, and keeps a painted page where it is', () => {
    const carrier = {
      widthMm: 90,
      heightMm: 120,
      radiusMm: 4,
      marginMm: 5,
      hole: null,
      role: 'through',
      count: 1,
    } as const;
    const pieces = [rectangle(0, 20, 30), rectangle(1, 210, 297, 7), rectangle(2, 90, 120, null)];
    const byDrawing = { 7: { page: 0 } };
    for (const arrangement of ['rows', 'packed'] as const) {
      const { placements } = arrange(pieces, { copies: 4, arrangement, carrier, byDrawing })!;
      expect(placements.filter(({ piece }) => piece === 0).length).toBe(4);
      expect(placements.filter(({ piece }) => piece === 2).length).toBe(1);
      expect(placements.filter(({ piece }) => piece === 1)).toEqual([
        { piece: 1, sheet: 0, xMm: 105, yMm: 148.5, turnDeg: 0 },
      ]);
    }
  });
});
