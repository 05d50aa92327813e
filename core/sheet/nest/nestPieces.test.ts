import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mapPoint } from '#core/geometry/affine.ts';
import { boundPoints } from '#core/geometry/box.ts';
import { areaOfRings, intersectRings, offsetRings, type Rings } from '#core/geometry/clip.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { findRemnant } from '#core/sheet/findRemnant.ts';
import { affineOf, type Placement } from '#core/sheet/layout.ts';
import { polishLast } from '#core/sheet/nest/polishLast.ts';
import { nestPieces, type NestOrder, type NestResult } from '#core/sheet/nest/nestPieces.ts';
import { often } from '#core/tests/often.ts';

const sheet = { name: 'A5', widthMm: 148, heightMm: 210, marginMm: 6 };
const ring = (points: readonly (readonly [number, number])[]): Rings => [points.map(([x, y]) => ({ x, y }))];
const circle = (radius: number) =>
  ring(
    Array.from({ length: 48 }, (_, at) => [
      radius * Math.cos((at * Math.PI) / 24),
      radius * Math.sin((at * Math.PI) / 24),
    ]),
  );
const bracket = ring([
  [0, 0],
  [40, 0],
  [40, 10],
  [10, 10],
  [10, 40],
  [0, 40],
]);
const pieceOf = (silhouette: Rings, index = 0) => ({
  index,
  silhouette,
  box: boundPoints(silhouette.flat()),
});
const order = (shapes: readonly Rings[], change: Partial<NestOrder> = {}): NestOrder => ({
  pieces: shapes.map(pieceOf),
  copies: 0,
  turns: 'quarter',
  spacingMm: 2,
  sheet,
  taken: [],
  ...change,
});
const last = (one: NestOrder, tries = 6): NestResult => [...nestPieces(one, seededRandom(3), tries)].at(-1)!;
const lay = ({ pieces }: NestOrder, placement: Placement): Rings => {
  const { box, silhouette } = pieces.find(({ index }) => index === placement.piece)!;
  const affine = affineOf(box, placement);
  return silhouette.map((points) => points.map((point) => mapPoint(affine, point)));
};

describe('nestPieces', () => {
  it('keeps every piece inside, apart by the spacing, and off what is taken, for random shapes', () => {
    const shape = fc
      .array(fc.tuple(fc.integer({ min: 3, max: 24 }), fc.integer({ min: 0, max: 100 })), {
        minLength: 3,
        maxLength: 9,
      })
      .map((spokes) =>
        ring(
          spokes.map(([radius], at) => {
            const angle = (2 * Math.PI * at) / spokes.length;
            return [radius * Math.cos(angle), radius * Math.sin(angle)];
          }),
        ),
      );
    fc.assert(
      fc.property(fc.array(shape, { minLength: 1, maxLength: 4 }), (shapes) => {
        const one = order(shapes, { copies: 2, taken: [{ minX: 0, minY: 0, maxX: 40, maxY: 40 }] });
        const { placements } = last(one, 2);
        const laid = placements.map((placement) => ({ sheet: placement.sheet, rings: lay(one, placement) }));
        laid.forEach(({ sheet: own, rings }, index) => {
          const box = boundPoints(rings.flat());
          expect(Math.min(box.minX, box.minY)).toBeGreaterThanOrEqual(6 - 1e-3);
          expect(box.maxX).toBeLessThanOrEqual(142 + 1e-3);
          expect(box.maxY).toBeLessThanOrEqual(204 + 1e-3);
          const taken = ring([
            [0, 0],
            [40, 0],
            [40, 40],
            [0, 40],
          ]);
          expect(areaOfRings(intersectRings(rings, taken))).toBeLessThan(0.01);
          for (const other of laid.slice(index + 1)) {
            if (other.sheet !== own) continue;
            expect(areaOfRings(intersectRings(offsetRings(rings, 1.98), other.rings))).toBeLessThan(0.05);
          }
        });
      }),
      { seed: 91, numRuns: often(8, 25) },
    );
  });

  it('lays 32 circles of 38 mm on A4 where boxes of the same spacing give 24', () => {
    const a4 = { name: 'A4', widthMm: 210, heightMm: 297, marginMm: 10 };
    const { placements } = last(order([circle(19)], { sheet: a4 }), 2);
    expect(Math.floor(192 / 40) * Math.floor(279 / 40)).toBe(24);
    expect(placements.length).toBeGreaterThanOrEqual(30);
  });

  it('turns pieces into each other where that is allowed, and not where the grain forbids it', () => {
    const tries = often(5, 12);
    const free = last(order([bracket]), tries);
    const grain = last(order([bracket], { turns: 'none' }), tries);
    expect(free.placements.length).toBeGreaterThanOrEqual(grain.placements.length);
    expect(grain.placements.every(({ turnDeg }) => turnDeg === 0)).toBe(true);
  });

  it('goes on to more sheets for a quantity, and says what fits on none', () => {
    const result = last(order([circle(30), circle(100)], { copies: 9 }), 4);
    expect(result.unplaced).toEqual([1]);
    expect(result.placements).toHaveLength(9);
    expect(result.sheets).toBe(2);
  });

  it('lays single pieces out as often as is said, and fills the rest of the sheet with the others', () => {
    const count = ({ placements }: NestResult, piece: number) =>
      placements.filter((placement) => placement.piece === piece).length;
    const shapes = [circle(9), bracket, circle(12)];
    const given = last(order(shapes, { copies: 2, quantities: { 0: 5, 2: 0 } }), 4);
    expect([0, 1, 2].map((piece) => count(given, piece))).toEqual([5, 2, 0]);
    const filled = last(order(shapes, { copies: 0, quantities: { 1: 3 } }), 4);
    expect(count(filled, 1)).toBe(3);
    expect(count(filled, 0)).toBeGreaterThan(5);
  });

  it('only ever gets better, and gives the same for the same seed', () => {
    const one = order([circle(9), bracket], { copies: 6 });
    const results = [...nestPieces(one, seededRandom(3), 10)];
    results.slice(1).forEach((result, index) => {
      const before = results[index]!;
      expect(result.sheets < before.sheets || result.lastShare < before.lastShare).toBe(true);
    });
    expect([...nestPieces(one, seededRandom(3), 10)]).toEqual(results);
  });
});

describe('findRemnant', () => {
  it('is the largest free rectangle, trimmed from what was cut', () => {
    const remnant = findRemnant({ widthMm: 210, heightMm: 297 }, [
      { minX: 0, minY: 0, maxX: 210, maxY: 100 },
    ]);
    expect(remnant).toEqual({ minX: 0, minY: 103, maxX: 210, maxY: 297 });
  });

  it('agrees with trying every rectangle of a coarse grid', () => {
    const cell = fc.integer({ min: 0, max: 8 }).map((at) => at * 25);
    const box = fc.tuple(cell, cell, cell, cell).map(([a, b, c, d]) => ({
      minX: Math.min(a, b) + 3,
      maxX: Math.max(a, b) + 22,
      minY: Math.min(c, d) + 3,
      maxY: Math.max(c, d) + 22,
    }));
    fc.assert(
      fc.property(fc.array(box, { minLength: 1, maxLength: 4 }), (boxes) => {
        let most = 0;
        for (let x0 = 0; x0 < 225; x0 += 25)
          for (let x1 = x0 + 50; x1 <= 225; x1 += 25)
            for (let y0 = 0; y0 < 225; y0 += 25)
              for (let y1 = y0 + 50; y1 <= 225; y1 += 25) {
                const isFree = boxes.every(
                  (one) =>
                    one.minX - 3 >= x1 || one.maxX + 3 <= x0 || one.minY - 3 >= y1 || one.maxY + 3 <= y0,
                );
                if (isFree) most = Math.max(most, (x1 - x0) * (y1 - y0));
              }
        const found = findRemnant({ widthMm: 225, heightMm: 225 }, boxes);
        const area = found ? (found.maxX - found.minX) * (found.maxY - found.minY) : 0;
        expect(area).toBeCloseTo(most, 6);
      }),
      { seed: 92, numRuns: 60 },
    );
  });

  it('is nothing on a full sheet', () => {
    expect(
      findRemnant({ widthMm: 100, heightMm: 100 }, [{ minX: 20, minY: 20, maxX: 80, maxY: 80 }]),
    ).toBeNull();
  });
});

describe('polishLast', () => {
  const one = order([circle(17), bracket, circle(9)], { copies: 14 });

  it('packs the last sheet closer, loses nothing and leaves the sheets before as they were', () => {
    const before = last(one, 1);
    const after = polishLast(one, before, seededRandom(5), 12);
    expect(before.sheets).toBeGreaterThan(1);
    expect(after.lastShare).toBeLessThan(before.lastShare);
    const counts = ({ placements }: NestResult) =>
      [0, 1, 2].map((piece) => placements.filter((placement) => placement.piece === piece).length);
    expect(counts(after)).toEqual(counts(before));
    const first = ({ placements }: NestResult) =>
      placements.filter(({ sheet: at }) => at < before.sheets - 1);
    expect(first(after)).toEqual(first(before));
    const rings = after.placements
      .filter(({ sheet: at }) => at === before.sheets - 1)
      .map((at) => lay(one, at));
    for (const [at, shape] of rings.entries()) {
      const near = offsetRings(shape, 1.9);
      for (const other of rings.slice(at + 1))
        expect(areaOfRings(intersectRings(near, other))).toBeLessThan(0.01);
    }
  });

  it('leaves a single sheet, and a sheet that is filled, alone', () => {
    const single = last(order([bracket], { copies: 2 }), 1);
    expect(polishLast(order([bracket], { copies: 2 }), single, seededRandom(5), 4)).toBe(single);
    const filled = last(order([bracket]), 1);
    expect(polishLast(order([bracket]), filled, seededRandom(5), 4)).toBe(filled);
  });
});
