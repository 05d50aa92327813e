import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { forceToGf, gfToForce, gfToNewton, listForces, snapForce } from '#core/units/forceScale.ts';

const levels = { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 4, gfPerUnit: 7.5 } as const;
const grams = { kind: 'gramForce', min: 10, max: 400, step: 5, gfAtZero: 0, gfPerUnit: 1 } as const;

describe('forceScale', () => {
  it('counts 1 gf as 9.80665 mN (NIST SP 811)', () => {
    expect(gfToNewton(1) * 1000).toBeCloseTo(9.80665, 10);
  });

  it('gives the nominal grams of a level and finds the level again', () => {
    expect(forceToGf(14, levels)).toBeCloseTo(109, 10);
    expect(gfToForce(109, levels)).toBe(14);
  });

  it('offers each settable value once, from end to end', () => {
    expect(listForces(levels)).toHaveLength(33);
    expect(listForces(grams).at(0)).toBe(10);
    expect(listForces(grams).at(-1)).toBe(400);
  });

  it('refuses a value the machine cannot do and says what it can', () => {
    expect(() => forceToGf(40, levels)).toThrow(/force 40 level .* 1 to 33 level/);
    expect(() => forceToGf(Number.NaN, levels)).toThrow(/outside/);
  });

  it('always snaps to a listed value no further than half a step inside the range', () => {
    fc.assert(
      fc.property(fc.double({ min: -100, max: 1000, noNaN: true }), (wanted) => {
        const snapped = snapForce(wanted, grams);
        expect(listForces(grams)).toContain(snapped);
        if (wanted >= 10 && wanted <= 400) expect(Math.abs(snapped - wanted)).toBeLessThanOrEqual(2.5 + 1e-9);
      }),
      { seed: 20261124 },
    );
  });
});
