import fc from 'fast-check';
import { MaxRectsPacker, PACKING_LOGIC } from 'maxrects-packer';
import { describe, expect, it } from 'vitest';
import { overlap, type BoxMm } from '#core/geometry/box.ts';
import { affineOf, turnBox } from '#core/sheet/layout.ts';
import { packBoxes } from '#core/sheet/nest/packBoxes.ts';
import { fillBin, rowPieces, type RowPiece, type RowsResult } from '#core/sheet/rows/rowPieces.ts';
import { often } from '#core/tests/often.ts';

const SHEET = { minX: 6, minY: 6, maxX: 204, maxY: 291 };
const room = { box: SHEET, taken: [] as BoxMm[], spacingMm: 2 };
const kind = fc.record({
  width: fc.double({ min: 6, max: 120, noNaN: true }),
  height: fc.double({ min: 6, max: 120, noNaN: true }),
  count: fc.integer({ min: 1, max: 12 }),
});
const piecesOf = (kinds: readonly { width: number; height: number; count: number }[]) =>
  kinds.map(({ width, height, count }, index): RowPiece => ({
    index,
    box: { minX: 0, minY: 0, maxX: width, maxY: height },
    count,
    turns: 'quarter',
  }));
const boxesOf = (pieces: readonly RowPiece[], { places }: RowsResult) =>
  places.map((place) => {
    const { box } = pieces[place.piece] as RowPiece;
    return { ...place, box: turnBox(box, affineOf(box, place)) };
  });
const grow = ({ minX, minY, maxX, maxY }: BoxMm, by: number) => ({
  minX: minX - by,
  minY: minY - by,
  maxX: maxX + by,
  maxY: maxY + by,
});

describe('boxes', () => {
  it('take no more sheets than a packer of rectangles takes, on any set', () => {
    let less = 0;
    fc.assert(
      fc.property(fc.array(kind, { minLength: 2, maxLength: 8 }), (kinds) => {
        const rivals = [PACKING_LOGIC.MAX_AREA, PACKING_LOGIC.MAX_EDGE].map((logic) => {
          const rival = new MaxRectsPacker(198, 285, 2, {
            smart: false,
            pot: false,
            square: false,
            allowRotation: true,
            logic,
          });
          rival.addArray(
            kinds.flatMap(({ width, height, count }) =>
              Array.from({ length: count }, () => ({ width, height, x: 0, y: 0 })),
            ) as never[],
          );
          return rival.bins.length;
        });
        const ours = packBoxes(piecesOf(kinds), room, 200);
        expect(ours.unplaced).toEqual([]);
        if (ours.bins < Math.min(...rivals)) less++;
        return ours.bins <= Math.min(...rivals);
      }),
      { seed: 2718, numRuns: 80 },
    );
    expect(less).toBeGreaterThan(0);
  });

  it('keep every distance, go around marks and are never lost', () => {
    const mark = fc.record({ x: fc.integer({ min: 0, max: 190 }), y: fc.integer({ min: 0, max: 280 }) });
    fc.assert(
      fc.property(
        fc.array(kind, { minLength: 1, maxLength: 6 }),
        fc.array(mark, { maxLength: 4 }),
        fc.double({ min: 0, max: 12, noNaN: true }),
        (kinds, marks, spacingMm) => {
          const taken = marks.map(({ x, y }) => ({ minX: x, minY: y, maxX: x + 9, maxY: y + 9 }));
          const pieces = piecesOf(kinds);
          const result = packBoxes(pieces, { box: SHEET, taken, spacingMm }, 60);
          const boxes = boxesOf(pieces, result);
          for (const [at, { box, bin }] of boxes.entries()) {
            expect(box.minX > 5.999 && box.minY > 5.999 && box.maxX < 204.001 && box.maxY < 291.001).toBe(
              true,
            );
            expect(taken.some((one) => overlap(one, grow(box, -0.001)))).toBe(false);
            const near = grow(box, spacingMm - 0.001);
            const others = boxes.filter((other, index) => index !== at && other.bin === bin);
            expect(others.some((other) => overlap(other.box, near))).toBe(false);
          }
          for (const { index, count } of pieces) {
            const own = result.places.filter(({ piece }) => piece === index).length;
            expect(result.unplaced.includes(index) ? own < count : own === count).toBe(true);
          }
        },
      ),
      { seed: 314, numRuns: often(25, 80) },
    );
  });

  it('mixed take no more sheets than rows, and often fewer', () => {
    let [fewer, sets] = [0, 0];
    fc.assert(
      fc.property(fc.array(kind, { minLength: 4, maxLength: 8 }), (kinds) => {
        const rows = rowPieces(piecesOf(kinds), () => room, 200).bins;
        const packed = packBoxes(piecesOf(kinds), room, 200).bins;
        sets += 1;
        if (packed < rows) fewer += 1;
        return packed <= rows;
      }),
      { seed: 161, numRuns: 60 },
    );
    expect(fewer / sets).toBeGreaterThan(0.1);
  });

  it('fill a sheet with no fewer than rows do', () => {
    const size = fc.integer({ min: 25, max: 140 });
    fc.assert(
      fc.property(size, size, (width, height) => {
        const [one] = piecesOf([{ width, height, count: Infinity }]);
        const rows = fillBin([one as RowPiece], room).places.length;
        const packed = fillBin([one as RowPiece], room, packBoxes, Math.max(0, rows - 1)).places.length;
        return packed >= rows - 1;
      }),
      { seed: 99, numRuns: 60 },
    );
  });
});
