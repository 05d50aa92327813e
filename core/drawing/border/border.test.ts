import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BACKINGS, closeGaps, drawBorder } from '#core/drawing/border/border.ts';
import { leastBorder, measureBorder, NECK_MM } from '#core/drawing/border/measureBorder.ts';
import { boundPoints } from '#core/geometry/box.ts';
import { areaOfRings, offsetRings, subtractRings, type Rings } from '#core/geometry/clip.ts';
import { convexHull } from '#core/geometry/convexHull.ts';

const box = (x: number, y: number, width: number, height: number): Rings => [
  [
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ],
];
const plain = { closesMm: 0, backing: 'outline' } as const;
/** Four letters of a word, 3 mm apart. */
const word = [0, 13, 26, 39].flatMap((x) => box(x, 0, 10, 14));

describe('borders', () => {
  it('are never welded: stickers 3 mm apart keep borders of their own (C3)', () => {
    const stickers = [...box(0, 0, 20, 20), ...box(23, 0, 20, 20)];
    const rings = drawBorder(stickers, { byMm: 2, keepsApart: true, ...plain });
    expect(rings.length).toBe(2);
    for (const ring of rings) {
      const { minX, maxX } = boundPoints(ring);
      expect(maxX - minX).toBeCloseTo(24, 2);
    }
  });

  it('become one where they meet, as around the letters of a word (C4)', () => {
    expect([1, 1.6].map((byMm) => drawBorder(word, { byMm, ...plain }).length)).toEqual([4, 1]);
  });

  it('close gaps without growing the rest (C4)', () => {
    const closed = closeGaps(word, 3.2);
    expect(closed.length).toBe(1);
    const { minX, minY, maxX, maxY } = boundPoints(closed.flat());
    expect([minX, minY, maxX, maxY].map((mm) => Number(mm.toFixed(2)))).toEqual([0, 0, 49, 14]);
  });

  it('tell how many outlines there are, and what makes one of them (C4)', () => {
    const thin = measureBorder(word, { byMm: 1, ...plain });
    expect(thin.outlines).toBe(4);
    const { leastCloseMm, leastBorderMm } = thin;
    // Letters of 14 mm, 3 mm apart: half the gap, and a neck of 2 mm in what then overlaps.
    expect(leastBorderMm).toBeGreaterThan(1.5);
    expect(leastBorderMm).toBeLessThan(1.7);
    expect(measureBorder(word, { byMm: leastBorderMm!, ...plain }).outlines).toBe(1);
    expect(measureBorder(word, { byMm: leastBorderMm! - 0.2, ...plain }).outlines).toBe(4);
    const joined = measureBorder(word, { byMm: 1, closesMm: leastCloseMm!, backing: 'outline' });
    expect(joined.outlines).toBe(1);
    expect(joined.thinnestMm ?? NECK_MM).toBeGreaterThanOrEqual(NECK_MM - 0.1);
    expect(leastBorder(box(0, 0, 5, 5))).toBe(0);
  });

  it('measure the narrowest neck', () => {
    // Two squares held by a bar of 3 mm.
    const bell = [...box(0, 0, 20, 20), ...box(19, 8.5, 12, 3), ...box(30, 0, 20, 20)];
    const { outlines, thinnestMm } = measureBorder(bell, { byMm: 0, ...plain });
    expect(outlines).toBe(1);
    expect(thinnestMm).toBeGreaterThan(2.9);
    expect(thinnestMm).toBeLessThan(3.15);
    expect(measureBorder(box(0, 0, 20, 20), { byMm: 0, ...plain }).thinnestMm).toBeNull();
  });

  it('go inside, and fall apart where the piece is thin', () => {
    const bell = [...box(0, 0, 20, 20), ...box(19, 8.5, 12, 3), ...box(30, 0, 20, 20)];
    expect(drawBorder(bell, { byMm: -0.4, ...plain }).length).toBe(1);
    expect(drawBorder(bell, { byMm: -1.6, ...plain }).length).toBe(2);
    expect(drawBorder(box(0, 0, 3, 3), { byMm: -2, ...plain })).toEqual([]);
  });

  it('hold the piece with its rim, whatever they follow', () => {
    const at = fc.double({ min: 0, max: 40, noNaN: true });
    const size = fc.double({ min: 2, max: 20, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(at, at, size, size), { minLength: 1, maxLength: 4 }), (parts) => {
        const covered = parts.flatMap(([x, y, width, height]) => box(x, y, width, height));
        const one = closeGaps(covered, 60);
        for (const backing of BACKINGS) {
          const rings = drawBorder(one, { byMm: 2, closesMm: 0, backing });
          // Flattened curves lie a hair inside of what they stand for.
          expect(areaOfRings(subtractRings(offsetRings(one, 1.9), rings))).toBeLessThan(0.05);
        }
      }),
      { seed: 33, numRuns: 20 },
    );
  });

  it('draws hulls that turn one way only', () => {
    const points = fc.array(
      fc.record({ x: fc.integer({ min: 0, max: 50 }), y: fc.integer({ min: 0, max: 50 }) }),
      { minLength: 3, maxLength: 40 },
    );
    fc.assert(
      fc.property(points, (given) => {
        const hull = convexHull(given);
        const turns = hull.map((point, at) => {
          const [b, c] = [hull[(at + 1) % hull.length]!, hull[(at + 2) % hull.length]!];
          return (b.x - point.x) * (c.y - point.y) - (b.y - point.y) * (c.x - point.x);
        });
        return hull.length < 3 || turns.every((turn) => turn > 0);
      }),
      { seed: 7, numRuns: 200 },
    );
  });
});
