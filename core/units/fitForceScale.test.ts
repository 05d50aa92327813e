import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawNormal, seededRandom } from '#core/random/seededRandom.ts';
import { fitForceScale } from '#core/units/fitForceScale.ts';
import { forceToGf, gfToForce, listForces, type ForceScale } from '#core/units/forceScale.ts';

const levels: ForceScale = { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 0, gfPerUnit: 10 };
const line = [2, 8, 16, 24, 32].map((force) => ({ force, grams: 6 + 9.5 * force }));

describe('fitForceScale', () => {
  it('finds a straight scale again, inside and beyond the readings (0.5 g)', () => {
    const { points } = fitForceScale(line, levels);
    for (const { force, gf } of points) expect(gf).toBeCloseTo(6 + 9.5 * force, 0.3);
  });

  it('follows a bent scale and turns around: gf to level to gf stays within half a level', () => {
    const bent = [1, 6, 12, 18, 24, 30, 33].map((force) => ({
      force,
      grams: 20 + 2 * force + 0.22 * force ** 2,
    }));
    const scale = { ...levels, measured: fitForceScale(bent, levels).points };
    for (const level of listForces(scale)) {
      expect(forceToGf(level, scale)).toBeCloseTo(20 + 2 * level + 0.22 * level ** 2, -1);
      expect(gfToForce(forceToGf(level, scale), scale)).toBe(level);
    }
  });

  it('covers the truth with its 90 % band about as often as it says (80 to 98 % of 60 simulated scales)', () => {
    const random = seededRandom(11);
    let inside = 0;
    let all = 0;
    for (let round = 0; round < 60; round++) {
      const readings = [2, 9, 16, 23, 30].flatMap((force) =>
        [0, 1].map(() => ({ force, grams: 6 + 9.5 * force + 3 * drawNormal(random) })),
      );
      for (const { force, lowGf, highGf } of fitForceScale(readings, levels).points) {
        if (force < 2 || force > 30) continue;
        all += 1;
        const truth = 6 + 9.5 * force;
        if (truth >= lowGf && truth <= highGf) inside += 1;
      }
    }
    expect(inside / all).toBeGreaterThan(0.8);
    expect(inside / all).toBeLessThan(0.98);
  });

  it('rises everywhere, whatever noise does to readings', () => {
    const reading = fc.record({
      force: fc.integer({ min: 1, max: 33 }),
      error: fc.double({ min: -4, max: 4, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(reading, { minLength: 6, maxLength: 14 }), (errors) => {
        fc.pre(new Set(errors.map(({ force }) => force)).size >= 3);
        const readings = errors.map(({ force, error }) => ({ force, grams: 40 + 9 * force + error }));
        const { points } = fitForceScale(readings, levels);
        points.slice(1).forEach((point, index) => expect(point.gf).toBeGreaterThan(points[index]!.gf));
        for (const point of points) {
          expect(point.lowGf).toBeLessThanOrEqual(point.gf);
          expect(point.highGf).toBeGreaterThanOrEqual(point.gf);
        }
      }),
      { seed: 20261125, numRuns: 60 },
    );
  });

  it.each([
    [
      [
        { force: 2, grams: 30 },
        { force: 20, grams: 200 },
      ],
      /too few/,
    ],
    [[...line, { force: 40, grams: 300 }], /not on this scale/],
    [[...line, { force: 4, grams: 0 }], /above 0/],
    [[...line, { force: 30, grams: 9000 }], /more than any small cutter/],
    [[...line, { force: 28, grams: 60 }], /28 read 60 g, less than 24 .* read both again/],
    [
      [
        [4, 60],
        [12, 150],
        [20, 90],
        [28, 330],
      ].map(([force, grams]) => ({ force: force!, grams: grams! })),
      /20 read 90 g, less than 12 with 150 g/,
    ],
    [[3, 9, 20].map((force) => ({ force, grams: 100 })), /does not rise/],
  ])('refuses what no machine reads, with the reason (%#)', (readings, reason) => {
    expect(() => fitForceScale(readings, levels)).toThrow(reason);
  });
});
