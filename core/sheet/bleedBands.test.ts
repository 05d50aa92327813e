import { describe, expect, it } from 'vitest';
import { bleedBands, narrowestGap } from '#core/sheet/bleedBands.ts';
import { areaOfRings, intersectRings, type Rings } from '#core/geometry/clip.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { seededRandom } from '#core/random/seededRandom.ts';

const box = (x: number, y: number, width: number, height = width): readonly PointMm[] => [
  { x, y },
  { x: x + width, y },
  { x: x + width, y: y + height },
  { x, y: y + height },
];
const circle = (x: number, y: number, radius: number): readonly PointMm[] =>
  Array.from({ length: 90 }, (_, at) => ({
    x: x + radius * Math.cos((at * Math.PI) / 45),
    y: y + radius * Math.sin((at * Math.PI) / 45),
  }));
const overlapOf = (a: Rings, b: Rings) => areaOfRings(intersectRings(a, b));

describe('the ink beyond a cut line', () => {
  it('goes on by the bleed around a piece that stands alone, with round corners', () => {
    const [only] = bleedBands([box(0, 0, 10)], 1);
    expect(areaOfRings(only!.band)).toBeCloseTo(4 * 10 + Math.PI, 1);
  });

  it('goes on into counters too', () => {
    const [ring] = bleedBands([box(0, 0, 20), box(6, 6, 8)], 1);
    // Outside 4 sides of 20 and a circle; inside 4 sides of 8, less the corners that meet.
    expect(areaOfRings(ring!.band)).toBeCloseTo(80 + Math.PI + (64 - 36), 1);
  });

  it('stops in the middle of a gap that is narrower than two bleeds', () => {
    const [left, right] = bleedBands([box(0, 0, 10), box(10.8, 0, 10)], 1.27);
    const gap = [box(10, 0, 0.8, 10)];
    // Half of the gap each, to an eighth of the bleed.
    for (const { band } of [left!, right!]) {
      expect(overlapOf(band, gap)).toBeGreaterThan(4 - 10 * (1.27 / 8));
      expect(overlapOf(band, gap)).toBeLessThan(4 + 10 * (1.27 / 8));
    }
  });

  it('never reaches into another piece, nor nearer to it than to its own, for random letters close together', () => {
    const random = seededRandom(35);
    for (let round = 0; round < 6; round++) {
      const outlines = Array.from({ length: 6 }, (_, at) => {
        const [x, y, radius] = [8 * at + random(), random() * 6, 2.5 + random()];
        return random() < 0.5 ? [circle(x, y, radius), circle(x, y, radius * 0.6)] : [circle(x, y, radius)];
      }).flat();
      const bleedMm = 0.5 + random() * 2;
      const bands = bleedBands(outlines, bleedMm);
      bands.forEach(({ band, piece }, index) => {
        expect(overlapOf(band, piece)).toBeLessThan(1e-3);
        bands.forEach((other, at) => {
          if (at === index) return;
          expect(overlapOf(band, other.piece)).toBeLessThan(1e-3);
        });
      });
    }
  });

  it('knows the narrowest gap between pieces, and none where they stand apart', () => {
    expect(narrowestGap([box(0, 0, 10), box(10.8, 2, 10)], 5)).toBeCloseTo(0.8, 2);
    expect(narrowestGap([circle(0, 0, 5), circle(10.5, 0, 5)], 5)).toBeCloseTo(0.5, 2);
    // A counter is no neighbour.
    expect(narrowestGap([box(0, 0, 20), box(6, 6, 8)], 5)).toBeNull();
    expect(narrowestGap([box(0, 0, 10), box(20, 0, 10)], 5)).toBeNull();
    expect(narrowestGap([], 5)).toBeNull();
  });
});
