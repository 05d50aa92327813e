import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Rings } from '#core/geometry/clip.ts';
import { isInside } from '#core/geometry/polygon.ts';
import { CellGrid, fillBox, maskRings, type RunMask } from '#core/sheet/nest/cellGrid.ts';

const cell = { widthMm: 0.5, heightMm: 1 };
const rings = fc
  .array(fc.tuple(fc.integer({ min: 2, max: 20 }), fc.integer({ min: 0, max: 99 })), {
    minLength: 3,
    maxLength: 10,
  })
  .map((spokes): Rings => [
    spokes.map(([radius, jitter], at) => {
      const angle = (2 * Math.PI * (at + jitter / 400)) / spokes.length;
      return { x: radius * Math.cos(angle), y: radius * Math.sin(angle) };
    }),
  ]);

const isMasked = (mask: RunMask, column: number, row: number): boolean => {
  for (let run = mask.rowStarts[row] ?? 0; run < (mask.rowStarts[row + 1] ?? 0); run++) {
    if (column >= mask.runs[2 * run]! && column < mask.runs[2 * run + 1]!) return true;
  }
  return false;
};

describe('maskRings', () => {
  it('covers every point of a shape: nothing of it lies in a cell that is left free', () => {
    fc.assert(
      fc.property(
        rings,
        fc.array(
          fc.tuple(fc.double({ noNaN: true, min: 0, max: 1 }), fc.double({ noNaN: true, min: 0, max: 1 })),
          { minLength: 40, maxLength: 40 },
        ),
        (shape, spots) => {
          const mask = maskRings(shape, cell);
          for (const [u, v] of spots) {
            const x = mask.corner.x + u * mask.columns * cell.widthMm;
            const y = mask.corner.y + v * mask.rows * cell.heightMm;
            if (!isInside({ x, y }, shape[0]!)) continue;
            const column = Math.min(mask.columns - 1, Math.floor(u * mask.columns));
            const row = Math.min(mask.rows - 1, Math.floor(v * mask.rows));
            expect(isMasked(mask, column, row)).toBe(true);
          }
        },
      ),
      { seed: 51, numRuns: 200 },
    );
  });

  it('takes no cell more than it must for upright shapes, holes left free', () => {
    const box = (from: number, to: number) => [
      { x: from, y: from },
      { x: to, y: from },
      { x: to, y: to },
      { x: from, y: to },
    ];
    const mask = maskRings([box(0, 6), box(2, 4).reverse()], cell);
    expect([mask.columns, mask.rows]).toEqual([12, 6]);
    const rows = Array.from({ length: 6 }, (_, row) =>
      Array.from({ length: 12 }, (_, column) => (isMasked(mask, column, row) ? '#' : '.')).join(''),
    );
    expect(rows).toEqual([
      '############',
      '############',
      '####....####',
      '####....####',
      '############',
      '############',
    ]);
  });
});

describe('CellGrid', () => {
  const COLUMNS = 90;
  const ROWS = 60;
  const spot = fc.record({
    shape: rings,
    column: fc.integer({ min: -5, max: COLUMNS }),
    row: fc.integer({ min: -5, max: ROWS }),
  });

  it('finds the place that trying every column finds, whatever was taken before', () => {
    fc.assert(
      fc.property(fc.array(spot, { maxLength: 8 }), rings, (taken, wanted) => {
        const grid = new CellGrid(COLUMNS, ROWS);
        const cells = new Set<number>();
        for (const { shape, column, row } of taken) {
          const mask = maskRings(shape, cell);
          grid.take(mask, column, row);
          for (let r = 0; r < mask.rows; r++) {
            for (let c = 0; c < mask.columns; c++) {
              const [x, y] = [column + c, row + r];
              const isIn = x >= 0 && y >= 0 && x < COLUMNS && y < ROWS;
              if (isIn && isMasked(mask, c, r)) cells.add(y * COLUMNS + x);
            }
          }
        }
        const mask = maskRings(wanted, cell);
        const isFree = (column: number, row: number) => {
          for (let r = 0; r < mask.rows; r++) {
            for (let c = 0; c < mask.columns; c++) {
              if (isMasked(mask, c, r) && cells.has((row + r) * COLUMNS + column + c)) return false;
            }
          }
          return true;
        };
        for (let row = 0; row + mask.rows <= ROWS; row += 7) {
          let first = -1;
          for (let column = 0; first < 0 && column + mask.columns <= COLUMNS; column++) {
            if (isFree(column, row)) first = column;
          }
          expect(grid.findInRow(mask, row, 0)).toBe(first);
        }
      }),
      { seed: 52, numRuns: 60 },
    );
  });

  it('keeps what its copy takes to the copy, and takes the cells that a box touches', () => {
    const grid = new CellGrid(20, 10);
    const copy = grid.clone();
    fillBox(copy, { minX: 1, minY: 2, maxX: 3, maxY: 4 }, { x: 0, y: 0 }, cell);
    const dot = maskRings(
      [
        [
          { x: 0, y: 0 },
          { x: 0.5, y: 0 },
          { x: 0.5, y: 1 },
          { x: 0, y: 1 },
        ],
      ],
      cell,
    );
    expect([dot.columns, dot.rows]).toEqual([1, 1]);
    expect(grid.findInRow(dot, 2, 2)).toBe(2);
    expect(copy.findInRow(dot, 2, 2)).toBe(6);
    expect(copy.findInRow(dot, 1, 2)).toBe(2);
    expect(copy.findInRow(dot, 4, 2)).toBe(2);
  });
});
