import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { learnLife } from '#core/wear/learnLife.ts';
import { seededRandom } from '#core/random/seededRandom.ts';

describe('learnLife', () => {
  it('is what is said while nothing was given up, a ninth in ten and a tenth apart on both sides', () => {
    const { low, middle, high, changes } = learnLife(360, []);
    expect(middle).toBeCloseTo(360, 9);
    expect(changes).toBe(0);
    expect(high / middle).toBeCloseTo(middle / low, 9);
    // Two spreads in quadrature: sqrt(0.3² + 0.25²), nine tenths of a normal at 1.2816.
    expect(high / middle).toBeCloseTo(Math.exp(1.2816 * Math.hypot(0.3, 0.25)), 9);
  });

  it('lies between what is said and what was seen, nearer to it the more was seen', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 1000, noNaN: true }),
        fc.double({ min: 10, max: 1000, noNaN: true }),
        fc.integer({ min: 1, max: 12 }),
        (said, seen, count) => {
          const fewer = learnLife(
            said,
            Array.from({ length: count }, () => seen),
          );
          const more = learnLife(
            said,
            Array.from({ length: count + 1 }, () => seen),
          );
          const [least, most] = [Math.min(said, seen), Math.max(said, seen)];
          expect(fewer.middle).toBeGreaterThanOrEqual(least * (1 - 1e-12));
          expect(fewer.middle).toBeLessThanOrEqual(most * (1 + 1e-12));
          expect(Math.abs(Math.log(more.middle / seen))).toBeLessThanOrEqual(
            Math.abs(Math.log(fewer.middle / seen)) + 1e-12,
          );
          expect(more.high / more.low).toBeLessThan(fewer.high / fewer.low);
        },
      ),
      { seed: 21 },
    );
  });

  it('holds eight in ten of what comes next, where lives are as it believes (1,000 kinds, 76 to 84 %)', () => {
    const random = seededRandom(5);
    const normal = () => Array.from({ length: 12 }, random).reduce((sum, one) => sum + one, 0) - 6;
    let inside = 0;
    for (let kind = 0; kind < 1000; kind++) {
      const centre = Math.log(300) + 0.25 * normal();
      const live = () => Math.exp(centre + 0.3 * normal());
      const { low, high } = learnLife(300, [live(), live(), live()]);
      const next = live();
      if (next > low && next < high) inside += 1;
    }
    expect(inside).toBeGreaterThan(760);
    expect(inside).toBeLessThan(840);
  });

  it('takes no notice of what was given up unused', () => {
    expect(learnLife(50, [0, -3])).toEqual(learnLife(50, []));
  });
});
