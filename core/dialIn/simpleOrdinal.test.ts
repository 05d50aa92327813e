import { describe, expect, it } from 'vitest';
import { CREASE_QUANTITY, holdIndex, pressIndex, TAB_QUANTITY, tabForHold } from '#core/dialIn/quantities.ts';
import { fitSimple, predictSimple } from '#core/dialIn/simpleOrdinal.ts';

const best = (chances: readonly number[]) => chances.indexOf(Math.max(...chances));

describe('tabs by how a piece held', () => {
  it('starts with what operators report as right (T6, common practice, no source)', () => {
    const prior = fitSimple(TAB_QUANTITY, []);
    for (const [tab, cut] of [
      [0.5, 20],
      [1.2, 17],
      [1, 10],
    ] as const) {
      const chances = predictSimple(TAB_QUANTITY, prior, holdIndex(tab, cut));
      expect(chances.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
      expect(chances[2]).toBeGreaterThan(0.2);
    }
    expect(best(predictSimple(TAB_QUANTITY, prior, holdIndex(0.9, 15)))).toBe(2);
  });

  it('asks for longer tabs after a piece fell out and for shorter ones after it tore', () => {
    const right = (seen: number) => {
      const posterior = fitSimple(TAB_QUANTITY, [{ index: holdIndex(0.9, 15), seen }]);
      const tabs = Array.from({ length: 40 }, (_, step) => 0.2 + step * 0.1);
      const chances = tabs.map((tab) => predictSimple(TAB_QUANTITY, posterior, holdIndex(tab, 15))[2]!);
      return tabs[best(chances)]!;
    };
    expect(right(0)).toBeGreaterThan(1.4);
    expect(right(4)).toBeLessThan(0.6);
    expect(right(1)).toBeGreaterThan(right(2));
    expect(right(3)).toBeLessThan(right(2));
  });

  it('knows more after every piece', () => {
    const chanceAfter = (count: number) => {
      const trials = Array.from({ length: count }, () => ({ index: 0.2, seen: 2 }));
      return predictSimple(TAB_QUANTITY, fitSimple(TAB_QUANTITY, trials), 0.2)[2]!;
    };
    expect(chanceAfter(1)).toBeGreaterThan(chanceAfter(0));
    expect(chanceAfter(4)).toBeGreaterThan(chanceAfter(1));
  });

  it('turns a hold back into its tab', () => {
    expect(holdIndex(tabForHold(0.3, 12), 12)).toBeCloseTo(0.3, 12);
    expect(holdIndex(1, 10)).toBeGreaterThan(holdIndex(1, 20));
  });

  it('refuses a step that is none', () => {
    expect(() => fitSimple(TAB_QUANTITY, [{ index: 0, seen: 5 }])).toThrow(/step 5/);
  });
});

describe('a crease by how it folded', () => {
  it('starts near 300 gf in one pass (T16, common practice, no source), lighter with more passes', () => {
    const prior = fitSimple(CREASE_QUANTITY, []);
    const forces = Array.from({ length: 60 }, (_, step) => 100 + step * 10);
    const force = (passes: number) =>
      forces[best(forces.map((gf) => predictSimple(CREASE_QUANTITY, prior, pressIndex(gf, passes))[2]!))]!;
    expect(Math.abs(force(1) - 300)).toBeLessThanOrEqual(20);
    expect(force(4)).toBeLessThan(force(1));
  });
});
