import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawNormal, seededRandom } from '#core/random/seededRandom.ts';
import { normalCdf } from '#core/threshold/numerics/normal.ts';
import { freshBladeFactor, judgeBlade, learnBladeLife } from '#core/wear/bladeLife.ts';
import { cusumChart } from '#core/wear/cusum.ts';
import { ewmaChart } from '#core/wear/ewma.ts';
import { findDrift, type DriftPoint } from '#core/wear/findDrift.ts';
import { judgeMat } from '#core/wear/judgeMat.ts';
import { feltShareOf, TACK_CLASSES, TACK_FEELS, TACK_FELT, tackIndex } from '#core/wear/tackIndex.ts';
import { gradeResidual, normalQuantile } from '#core/wear/gradeResidual.ts';

describe('charts', () => {
  it('draws the weighted means of NIST/SEMATECH e-Handbook 6.3.2.4', () => {
    const data = [
      52.0, 47.0, 53.0, 49.3, 50.1, 47.0, 51.0, 50.1, 51.2, 50.5, 49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6,
      52.4, 53.6, 52.1,
    ];
    const chart = ewmaChart(data, { lambda: 0.3, target: 50, sd: 2.0539 });
    expect(chart.upper).toBeCloseTo(52.5884, 3);
    expect(chart.lower).toBeCloseTo(47.4115, 3);
    expect(chart.means.at(-1)).toBeCloseTo(51.99, 2);
    expect(chart.means.every((mean) => mean < chart.upper && mean > chart.lower)).toBe(true);
  });

  it('keeps the sums of NIST/SEMATECH e-Handbook 6.3.2.3', () => {
    const data = [
      324.925, 324.675, 324.725, 324.35, 325.35, 325.225, 324.125, 324.525, 325.225, 324.6, 324.625, 325.15,
      328.325, 327.25, 327.825, 328.5, 326.675, 327.775, 326.875, 328.35,
    ];
    const chart = cusumChart(data, { target: 325, allowance: 0.3175, decision: 4.1959 });
    expect(chart.firstUpper).toBe(13);
    expect(chart.upper[13]).toBeCloseTo(4.94, 2);
    expect(chart.upper.at(-1)).toBeCloseTo(19.035, 3);
    expect(chart.firstLower).toBeNull();
  });
});

describe('gradeResidual', () => {
  it('has mean 0 and variance at most 1 when the expectation is right, whatever the chances', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 100 }), { minLength: 2, maxLength: 9 }), (parts) => {
        const sum = parts.reduce((all, part) => all + part, 0);
        const chances = parts.map((part) => part / sum);
        const residuals = chances.map((_, grade) => gradeResidual(chances, grade));
        const mean = residuals.reduce((all, one, grade) => all + one * chances[grade]!, 0);
        const variance = residuals.reduce((all, one, grade) => all + one * one * chances[grade]!, 0);
        // A floor of 1e-4 under every chance moves the mean by a few ten-thousandths.
        expect(Math.abs(mean)).toBeLessThan(2e-3);
        expect(variance).toBeLessThanOrEqual(1 + 1e-9);
        expect([...residuals].sort((a, b) => b - a)).toEqual(residuals);
      }),
      { seed: 7 },
    );
  });

  it('is the mean of a half normal where two grades are equally likely', () => {
    // sqrt(2 / pi), any textbook of probability.
    expect(gradeResidual([0.5, 0.5], 0)).toBeCloseTo(Math.sqrt(2 / Math.PI), 8);
    expect(gradeResidual([1, 0, 0], 2)).toBeLessThan(-3);
  });

  it('has a quantile that its distribution function takes back', () => {
    for (const share of [1e-9, 1e-4, 0.02, 0.3, 0.5, 0.77, 0.999]) {
      expect(normalCdf(normalQuantile(share)) / share).toBeCloseTo(1, 7);
    }
    expect(normalQuantile(0.975)).toBeCloseTo(1.959964, 5);
  });
});

const random = seededRandom(11);
const point = (day: number, change: Partial<DriftPoint> = {}): DriftPoint => ({
  at: new Date(Date.UTC(2026, 2, 1 + day)).toISOString(),
  residual: 0.8 * drawNormal(random),
  bladeId: 1,
  bladeMetres: 40 + day,
  matId: null,
  sheet: 'Herringglass',
  lot: 'A',
  humidity: null,
  ...change,
});
const quiet = (days: number) => Array.from({ length: days }, (_, day) => point(day));

describe('findDrift', () => {
  it('is quiet on most months in which nothing changes', () => {
    const alarms = Array.from({ length: 60 }, () => findDrift(quiet(30)).alarm).filter(Boolean);
    // In control, with residuals of 0.8 sd, an alarm stands at the end of a month now and then.
    expect(alarms.length).toBeLessThan(6);
  });

  it('names the blade where the need grows with its metres', () => {
    const worn = Array.from({ length: 24 }, (_, step) =>
      point(20 + step, { bladeMetres: 60 + 14 * step, residual: 0.4 * drawNormal(random) + 0.11 * step }),
    );
    const { alarm } = findDrift([...quiet(20), ...worn]);
    expect(alarm).toMatchObject({ direction: 'more' });
    expect(alarm!.causes[0]!.cause).toBe('bladeWorn');
    expect(alarm!.causes[0]!.reason).toMatch(/382 m/);
  });

  it('names the lot where only its sheets shifted, though others were cut between', () => {
    const mixed = Array.from({ length: 24 }, (_, step) => {
      const isNew = step % 2 === 0;
      const residual = 0.4 * drawNormal(random) + (isNew ? 2.2 : 0);
      return point(20 + step, { lot: isNew ? 'B' : 'A', residual });
    });
    const { alarm } = findDrift([...quiet(20), ...mixed]);
    expect(alarm!.causes[0]).toMatchObject({ cause: 'lot', reason: 'it began with lot B' });
    expect(alarm!.causes.reduce((sum, { chance }) => sum + chance, 0)).toBeCloseTo(1, 9);
  });

  it('names damp where it goes with the humidity, and less force where cuts go deeper', () => {
    const damp = Array.from({ length: 24 }, (_, step) => {
      const humidity = step % 3 === 0 ? 40 : 75;
      return point(20 + step, { humidity, residual: 0.3 * drawNormal(random) + (humidity > 60 ? 1.8 : 0) });
    });
    expect(findDrift([...quiet(20), ...damp]).alarm!.causes[0]!.cause).toBe('damp');
    const deep = Array.from({ length: 10 }, (_, step) => point(20 + step, { residual: -1.8 }));
    expect(findDrift([...quiet(20), ...deep]).alarm!.direction).toBe('less');
  });

  it('has nothing to say of nothing', () => {
    expect(findDrift([]).alarm).toBeNull();
  });
});

describe('mats', () => {
  it('are washed while lint is what they lack, and re-stuck when their tack is gone', () => {
    const wear = { tack: 'standard', uses: 5, ageDays: 10, usesSinceCleaned: 0 } as const;
    expect(judgeMat(wear).advice).toBe('good');
    expect(judgeMat({ ...wear, usesSinceCleaned: 12 })).toMatchObject({ advice: 'wash' });
    expect(judgeMat({ ...wear, uses: 24 }).advice).toBe('roll');
    expect(judgeMat({ ...wear, uses: 90 })).toMatchObject({
      advice: 'restick',
      loadsLeft: { low: 0, high: 0 },
    });
    expect(judgeMat(wear).loadsLeft.high).toBeGreaterThan(judgeMat({ ...wear, uses: 30 }).loadsLeft.high);
  });

  it('last as their like were kept here: sooner given up is less left, and a narrower band', () => {
    const wear = { tack: 'standard', uses: 10, ageDays: 0, usesSinceCleaned: 0 } as const;
    const usual = judgeMat(wear);
    // A standard mat falls from 70 to 25 by two thirds every 25 loads: 25 ln(70 / 25) / ln(1.5) = 63.5 loads.
    expect(usual.loadsLeft.low).toBeLessThan(63 - 10);
    expect(usual.loadsLeft.high).toBeGreaterThan(63 - 10);
    const learnt = judgeMat(wear, [30, 32, 28, 31]);
    expect(learnt.changes).toBe(4);
    expect(learnt.loadsLeft.high).toBeLessThan(usual.loadsLeft.high);
    expect(learnt.loadsLeft.high - learnt.loadsLeft.low).toBeLessThan(
      usual.loadsLeft.high - usual.loadsLeft.low,
    );
    expect(judgeMat({ ...wear, uses: 60 }, [20, 20, 20, 20, 20, 20])).toMatchObject({
      advice: 'restick',
      reason: 'mats like it were given up sooner here',
    });
  });

  it('age takes loads as well', () => {
    const wear = { tack: 'standard', uses: 10, usesSinceCleaned: 0 } as const;
    expect(judgeMat({ ...wear, ageDays: 400 }).loadsLeft.high).toBe(
      judgeMat({ ...wear, uses: 35, ageDays: 0 }).loadsLeft.high,
    );
  });
});

describe('a mat tested by hand', () => {
  const wears = fc.record({
    tack: fc.constantFrom(...TACK_CLASSES),
    uses: fc.integer({ min: 0, max: 60 }),
    ageDays: fc.integer({ min: 0, max: 900 }),
    usesSinceCleaned: fc.integer({ min: 0, max: 30 }),
  });

  it('holds as it felt, whatever was reckoned, and wears from there on (seeded)', () => {
    fc.assert(
      fc.property(wears, fc.constantFrom(...TACK_FEELS), (wear, feel) => {
        const tested = { ...wear, feltShare: feltShareOf(wear, feel) };
        // What is reckoned below 1 counts as 1.
        if (tackIndex(wear) >= 1) expect(tackIndex(tested)).toBe(TACK_FELT[feel].index);
        const later = { ...tested, uses: wear.uses + 20, usesSinceCleaned: wear.usesSinceCleaned + 20 };
        expect(tackIndex(later)).toBeLessThan(tackIndex(tested));
        expect(tackIndex({ ...later, usesSinceCleaned: 0 })).toBeGreaterThanOrEqual(tackIndex(later));
      }),
      { seed: 42 },
    );
  });

  it('is given up when it lets go by itself, however new it is', () => {
    const fresh = { tack: 'standard', uses: 2, ageDays: 5, usesSinceCleaned: 2 } as const;
    expect(judgeMat(fresh).advice).toBe('good');
    expect(judgeMat({ ...fresh, feltShare: feltShareOf(fresh, 'falls') }).advice).toBe('restick');
  });
});

describe('blades', () => {
  it('last as is said until they were changed here, then as they were changed', () => {
    expect(learnBladeLife(360, []).middleMetres).toBeCloseTo(360, 9);
    const learnt = learnBladeLife(360, [200, 210, 190, 205]);
    expect(learnt.middleMetres).toBeGreaterThan(200);
    expect(learnt.middleMetres).toBeLessThan(240);
    expect(learnt.highMetres / learnt.lowMetres).toBeLessThan(
      learnBladeLife(360, []).highMetres / learnBladeLife(360, []).lowMetres,
    );
  });

  it('are cleaned first, and changed when that did not help or they are old', () => {
    const life = learnBladeLife(360, []);
    expect(judgeBlade(life, 50, false, false).advice).toBe('good');
    expect(judgeBlade(life, 50, true, false).advice).toBe('clean');
    expect(judgeBlade(life, 50, true, true).advice).toBe('change');
    expect(judgeBlade(life, 400, true, false).advice).toBe('change');
    expect(judgeBlade(life, life.highMetres + 1, false, false)).toMatchObject({
      advice: 'change',
      highMetres: 0,
    });
  });

  it('want less force when they are fresh', () => {
    expect(freshBladeFactor(0, 0.2)).toBe(1);
    expect(freshBladeFactor(500, 0.2)).toBeCloseTo(2 ** -0.2, 12);
  });
});
