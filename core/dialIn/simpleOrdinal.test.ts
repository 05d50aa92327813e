import { describe, expect, it } from 'vitest';
import { CREASE_QUANTITY, pressIndex } from '#core/dialIn/quantities.ts';
import { fitSimple, meanOf, predictSimple } from '#core/dialIn/simpleOrdinal.ts';

const best = (chances: readonly number[]) => chances.indexOf(Math.max(...chances));

describe('a piece with boundaries of its own', () => {
  it('is judged by them, and teaches the same middle', () => {
    const shifted = CREASE_QUANTITY.boundaries.map((at) => at + 1) as [number, number, number, number];
    const plain = fitSimple(CREASE_QUANTITY, [{ index: 5.5, seen: 0 }]);
    const own = fitSimple(CREASE_QUANTITY, [{ index: 6.5, boundaries: shifted, seen: 0 }]);
    expect(meanOf(own)).toBeCloseTo(meanOf(plain), 9);
    expect(predictSimple(CREASE_QUANTITY, own, { index: 7, boundaries: shifted })[2]).toBeCloseTo(
      predictSimple(CREASE_QUANTITY, plain, { index: 6 })[2]!,
      9,
    );
  });
});

describe('a crease by how it folded', () => {
  it('starts near 300 gf in one pass (T16, common practice, no source), lighter with more passes', () => {
    const prior = fitSimple(CREASE_QUANTITY, []);
    const forces = Array.from({ length: 60 }, (_, step) => 100 + step * 10);
    const force = (passes: number) =>
      forces[
        best(forces.map((gf) => predictSimple(CREASE_QUANTITY, prior, { index: pressIndex(gf, passes) })[2]!))
      ]!;
    expect(Math.abs(force(1) - 300)).toBeLessThanOrEqual(20);
    expect(force(4)).toBeLessThan(force(1));
  });
});
