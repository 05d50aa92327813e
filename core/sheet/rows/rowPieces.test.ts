import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { overlap, type BoxMm } from '#core/geometry/box.ts';
import { affineOf, turnBox, type Turns } from '#core/sheet/layout.ts';
import { lineUp } from '#core/sheet/rows/lineUp.ts';
import { fillBin, rowPieces, type BinPlace, type RowPiece } from '#core/sheet/rows/rowPieces.ts';

const SHEET_ROOM = { minX: 6, minY: 6, maxX: 204, maxY: 291 };
const room = { box: SHEET_ROOM, taken: [] as BoxMm[], spacingMm: 2 };
const piece = (
  index: number,
  width: number,
  height: number,
  count: number,
  turns: Turns = 'none',
): RowPiece => ({
  index,
  box: { minX: 0, minY: 0, maxX: width, maxY: height },
  count,
  turns,
});
const boxesOf = (pieces: readonly RowPiece[], places: readonly BinPlace[]) =>
  places.map((place) => {
    const { box } = pieces.find(({ index }) => index === place.piece) as RowPiece;
    return { ...place, box: turnBox(box, affineOf(box, place)) };
  });

describe('rows', () => {
  it('lays twelve circles straight, even and aligned (C9)', () => {
    const pieces = [piece(0, 40, 40, 12)];
    const { places, bins } = rowPieces(pieces, () => room, 9);
    expect(bins).toBe(1);
    const columns = [...new Set(places.map(({ xMm }) => xMm.toFixed(6)))].map(Number);
    const rows = [...new Set(places.map(({ yMm }) => yMm.toFixed(6)))].map(Number);
    expect([columns, rows]).toEqual([
      [26, 68, 110, 152],
      [26, 68, 110],
    ]);
  });

  it('holds as many equal rectangles as the sums say', () => {
    const sizes = fc.tuple(fc.integer({ min: 8, max: 90 }), fc.integer({ min: 8, max: 90 }));
    fc.assert(
      fc.property(sizes, ([width, height]) => {
        const grid = (w: number, h: number) =>
          Math.floor((198 + 2) / (w + 2)) * Math.floor((285 + 2) / (h + 2));
        const { places } = fillBin([piece(0, width, height, Infinity, 'quarter')], room);
        return places.length >= Math.max(grid(width, height), grid(height, width));
      }),
      { seed: 18, numRuns: 200 },
    );
  });

  it('keeps every distance, goes around marks and loses nothing, on any sheet', () => {
    const kind = fc.record({
      width: fc.double({ min: 4, max: 80, noNaN: true }),
      height: fc.double({ min: 4, max: 80, noNaN: true }),
      count: fc.integer({ min: 0, max: 30 }),
      turns: fc.constantFrom<Turns>('none', 'half', 'quarter'),
    });
    const mark = fc.record({ x: fc.integer({ min: 0, max: 190 }), y: fc.integer({ min: 0, max: 280 }) });
    fc.assert(
      fc.property(
        fc.array(kind, { minLength: 1, maxLength: 6 }),
        fc.array(mark, { maxLength: 4 }),
        (kinds, marks) => {
          const taken = marks.map(({ x, y }) => ({ minX: x, minY: y, maxX: x + 15, maxY: y + 15 }));
          const pieces = kinds.map(({ width, height, count, turns }, at) =>
            piece(at, width, height, count, turns),
          );
          const { places, unplaced } = rowPieces(pieces, () => ({ ...room, taken }), 60);
          const boxes = boxesOf(pieces, places);
          for (const [at, { box, bin }] of boxes.entries()) {
            expect(
              box.minX >= 6 - 1e-6 && box.minY >= 6 - 1e-6 && box.maxX <= 204.001 && box.maxY <= 291.001,
            ).toBe(true);
            const inner = {
              minX: box.minX + 0.01,
              minY: box.minY + 0.01,
              maxX: box.maxX - 0.01,
              maxY: box.maxY - 0.01,
            };
            expect(taken.some((one) => overlap(one, inner))).toBe(false);
            const grown = {
              minX: box.minX - 1.99,
              minY: box.minY - 1.99,
              maxX: box.maxX + 1.99,
              maxY: box.maxY + 1.99,
            };
            expect(
              boxes.some((other, index) => index !== at && other.bin === bin && overlap(other.box, grown)),
            ).toBe(false);
          }
          for (const { index, count, turns } of pieces) {
            const own = places.filter((place) => place.piece === index);
            if (!unplaced.includes(index)) expect(own.length).toBe(count);
            if (turns !== 'quarter') expect(own.every(({ turnDeg }) => turnDeg === 0)).toBe(true);
          }
        },
      ),
      { seed: 1818, numRuns: 120 },
    );
  });

  it('turns pieces only where that saves a sheet or much of one', () => {
    // 100 mm wide: one in a row as drawn, four turned.
    const wide = rowPieces([piece(0, 100, 40, 12, 'quarter')], () => room, 9);
    expect(new Set(wide.places.map(({ turnDeg }) => turnDeg))).toEqual(new Set([90]));
    const nearlySquare = rowPieces([piece(0, 41, 40, 12, 'quarter')], () => room, 9);
    expect(new Set(nearlySquare.places.map(({ turnDeg }) => turnDeg))).toEqual(new Set([0]));
  });

  it('gives each kind rows of its own while that takes no more sheets', () => {
    const pieces = [piece(0, 60, 40, 4), piece(1, 20, 20, 3)];
    const { places } = rowPieces(pieces, () => room, 9);
    const rowsOf = (index: number) =>
      new Set(places.filter((one) => one.piece === index).map(({ yMm }) => yMm));
    expect([...rowsOf(0)].some((row) => rowsOf(1).has(row))).toBe(false);
    const tight = [piece(0, 60, 90, 7), piece(1, 20, 20, 6)];
    const low = { ...room, box: { ...room.box, maxY: 288 } };
    expect(rowPieces(tight, () => low, 9).bins).toBe(1);
  });

  it('fills a sheet with as many of each as fit, then with what still does', () => {
    const { places } = fillBin([piece(0, 60, 60, Infinity), piece(1, 15, 15, Infinity)], room);
    const counts = [0, 1].map((index) => places.filter((one) => one.piece === index).length);
    expect(Math.min(...counts)).toBeGreaterThanOrEqual(9);
    expect(fillBin([piece(0, 300, 60, Infinity)], room).places).toEqual([]);
  });
});

describe('rows of equal pieces', () => {
  const card = { minX: 0, minY: 0, maxX: 100, maxY: 130 };
  const lay = (taken: readonly BoxMm[], width = 204) => {
    const own = { box: { ...SHEET_ROOM, maxX: width }, taken, spacingMm: 2 };
    return lineUp(
      rowPieces([{ index: 0, box: card, count: 2, turns: 'none' }], () => own, 1).places,
      card,
      own,
    );
  };

  it('stand under each other where a mark pushed one aside', () => {
    const pushed = lay([{ minX: 6, minY: 6, maxX: 20, maxY: 20 }]);
    expect(new Set(pushed.map(({ xMm }) => xMm)).size).toBe(1);
    expect(pushed[0]?.xMm).toBe(70);
  });

  it('stay where one has no room to move', () => {
    const marks = [
      { minX: 6, minY: 6, maxX: 20, maxY: 20 },
      { minX: 115, minY: 200, maxX: 130, maxY: 215 },
    ];
    expect(new Set(lay(marks).map(({ xMm }) => xMm)).size).toBe(2);
  });
});
