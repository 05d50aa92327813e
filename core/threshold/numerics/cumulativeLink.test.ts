import { describe, expect, it } from 'vitest';
import { fitCumulativeLink, type OrdinalRow } from '#core/threshold/numerics/cumulativeLink.ts';
import { LOGIT, PROBIT } from '#core/threshold/numerics/link.ts';

/** Randall 1989, as shipped with R package ordinal 2022.11-16 (data set wine): counts by temp, contact and rating. */
const WINE: readonly (readonly [warm: number, contact: number, counts: readonly number[]])[] = [
  [0, 0, [4, 9, 5, 0, 0]],
  [0, 1, [1, 7, 8, 2, 0]],
  [1, 0, [0, 5, 8, 3, 2]],
  [1, 1, [0, 1, 5, 7, 5]],
];

const wineRows: readonly OrdinalRow[] = WINE.flatMap(([warm, contact, counts]) =>
  counts.map((weight, grade) => ({ grade, predictors: [warm, contact], weight })),
).filter((row) => row.weight > 0);

/** Bliss 1935, table in Dobson, An Introduction to Generalized Linear Models: log dose, exposed, killed. */
const BEETLES: readonly (readonly [number, number, number])[] = [
  [1.6907, 59, 6],
  [1.7242, 60, 13],
  [1.7552, 62, 18],
  [1.7842, 56, 28],
  [1.8113, 63, 52],
  [1.8369, 59, 53],
  [1.861, 62, 61],
  [1.8839, 60, 60],
];

const beetleRows: readonly OrdinalRow[] = BEETLES.flatMap(([dose, exposed, killed]) => [
  { grade: 1, predictors: [dose], weight: killed },
  { grade: 0, predictors: [dose], weight: exposed - killed },
]).filter((row) => row.weight > 0);

/** Madsen 1976, as shipped with R package MASS 7.3-58 (data set housing), satisfaction low, medium, high. */
const HOUSING = [
  [21, 21, 28, 14, 19, 37, 61, 23, 17, 78, 46, 43, 13, 9, 10, 20, 23, 20, 18, 6, 7, 57, 23, 13],
  [34, 22, 36, 17, 23, 40, 43, 35, 40, 48, 45, 86, 8, 8, 12, 10, 22, 24, 15, 13, 13, 31, 21, 13],
  [10, 11, 36, 3, 5, 23, 26, 18, 54, 15, 25, 62, 6, 7, 9, 7, 10, 21, 7, 5, 11, 5, 6, 13],
];

const housingRows: readonly OrdinalRow[] = HOUSING.flatMap((counts, influence) =>
  counts.map((weight, index) => {
    const type = Math.floor(index / 6);
    const predictors = [
      Number(influence === 1),
      Number(influence === 2),
      Number(type === 1),
      Number(type === 2),
      Number(type === 3),
      Math.floor(index / 3) % 2,
    ];
    return { grade: index % 3, predictors, weight };
  }),
);

function expectAll(actual: readonly number[], published: readonly number[], tolerance: number): void {
  expect(actual).toHaveLength(published.length);
  published.forEach((value, index) =>
    expect(Math.abs((actual[index] as number) - value)).toBeLessThan(tolerance),
  );
}

describe('fitCumulativeLink', () => {
  it('gives the published logit fit of wine ~ temp + contact with its standard errors (R ordinal::clm)', () => {
    const fit = fitCumulativeLink(wineRows, 5, LOGIT);
    expectAll(fit.thresholds, [-1.344383411, 1.250808798, 3.466886926, 5.006404204], 1e-7);
    expectAll(fit.coefficients, [2.503102008, 1.527797658], 1e-7);
    expect(fit.logLikelihood).toBeCloseTo(-86.49192337, 7);
    const errors = [0.5171020453, 0.437880203, 0.5977604246, 0.7309063437, 0.5286801008, 0.4766226296];
    expectAll(fit.standardErrors, errors, 1e-6);
  });

  it('gives the published probit fit of the same data (R ordinal::clm, link = "probit")', () => {
    const fit = fitCumulativeLink(wineRows, 5, PROBIT);
    expectAll(fit.thresholds, [-0.7732627288, 0.7360214898, 2.0446804639, 2.9413449823], 1e-7);
    expectAll(fit.coefficients, [1.4993745784, 0.8677435389], 1e-7);
    expect(fit.logLikelihood).toBeCloseTo(-85.76114836, 7);
    // sqrt(diag(vcov(clm(rating ~ temp + contact, data = wine, link = "probit")))), ordinal 2022.11-16
    const errors = [0.2828623571, 0.2499388183, 0.3218210139, 0.3872592804, 0.2917903911, 0.2669070093];
    expectAll(fit.standardErrors, errors, 1e-6);
  });

  it('with two grades is the published logistic and probit regression of beetle mortality', () => {
    const logit = fitCumulativeLink(beetleRows, 2, LOGIT);
    expect(-(logit.thresholds[0] as number)).toBeCloseTo(-60.71745, 4);
    expect(logit.coefficients[0]).toBeCloseTo(34.27033, 4);
    const probit = fitCumulativeLink(beetleRows, 2, PROBIT);
    expect(-(probit.thresholds[0] as number)).toBeCloseTo(-34.93527, 3);
    expect(probit.coefficients[0]).toBeCloseTo(19.72794, 3);
  });

  it('gives the published proportional odds fit of housing (R MASS::polr)', () => {
    const fit = fitCumulativeLink(housingRows, 3, LOGIT);
    const published = [0.5663937389, 1.2888190638, -0.5723501464, -0.3661865662, -1.0910149077, 0.3602841499];
    expectAll(fit.coefficients, published, 1e-5);
    expectAll(fit.thresholds, [-0.4961353438, 0.6907082904], 1e-5);
    expect(-2 * fit.logLikelihood).toBeCloseTo(3479.149299, 5);
  });

  it('says so when the rows cannot determine a coefficient', () => {
    const constant = wineRows.map((row) => ({ ...row, predictors: [1, 1] }));
    expect(fitCumulativeLink(constant, 5, LOGIT).standardErrors.some((error) => !(error < 1e3))).toBe(true);
  });
});
