import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { choleskyOf, logDetOf } from '#core/threshold/numerics/cholesky.ts';
import { fisherScoring } from '#core/threshold/numerics/fisherScoring.ts';
import { LOGIT, PROBIT } from '#core/threshold/numerics/link.ts';
import { CELL_WEIGHT, groupBatches, BATCH_NODES, BATCH_SPREAD, OWN_SPREAD } from '#core/threshold/batches.ts';
import { misjudgingMatrix } from '#core/threshold/sheetModel/misjudging.ts';
import { derivePrior, logPrior } from '#core/threshold/numerics/normalPrior.ts';
import { makeOrdinalKernel } from '#core/threshold/sheetModel/ordinalKernel.ts';

const descending = fc
  .array(fc.double({ min: -4, max: 4, noNaN: true }), { minLength: 8, maxLength: 8 })
  .map((values) => Float64Array.from(values.sort((a, b) => b - a)));

describe('the ordinal kernel', () => {
  for (const [name, link, matrix] of [
    ['probit, misread', PROBIT, misjudgingMatrix(9)],
    ['logit, exact', LOGIT, null],
  ] as const) {
    const kernel = makeOrdinalKernel(link, 9, matrix);
    it(`has chances that sum to one and the gradient of their logs (${name}, central differences)`, () => {
      fc.assert(
        fc.property(descending, fc.integer({ min: 0, max: 8 }), (indexes, seen) => {
          let total = 0;
          for (let grade = 0; grade < 9; grade++) total += Math.exp(kernel.logChance(indexes, grade));
          expect(total).toBeCloseTo(1, 7);
          const chance = Math.exp(kernel.observe(indexes, seen));
          if (chance < 1e-4) return;
          const score = Float64Array.from(kernel.edgeScore);
          for (let edge = 0; edge < 8; edge++) {
            const at = (step: number) =>
              kernel.logChance(
                indexes.map((value, j) => (j === edge ? value + step : value)),
                seen,
              );
            // Where two edges meet the chance has a corner: it does not go below nothing.
            const gap = Math.min(
              edge > 0 ? indexes[edge - 1]! - indexes[edge]! : 1,
              edge < 7 ? indexes[edge]! - indexes[edge + 1]! : 1,
            );
            if (gap < 1e-3) continue;
            expect(score[edge]! - (at(1e-6) - at(-1e-6)) / 2e-6).toBeCloseTo(0, 4);
          }
        }),
        { seed: 31, numRuns: 60 },
      );
    });
  }

  it('sums the chances of a range of grades', () => {
    const kernel = makeOrdinalKernel(PROBIT, 9, misjudgingMatrix(9));
    const indexes = Float64Array.of(3, 2, 1, 0.4, -0.2, -1, -2, -3);
    const each = [3, 4, 5].map((grade) => Math.exp(kernel.logChance(indexes, grade)));
    expect(Math.exp(kernel.logChance(indexes, 3, 5))).toBeCloseTo(each[0]! + each[1]! + each[2]!, 12);
    expect(kernel.logChance(indexes, 0, 8)).toBeCloseTo(0, 9);
  });

  it('expects no information from a cut whose grade is certain', () => {
    const kernel = makeOrdinalKernel(PROBIT, 3, null);
    kernel.observe(Float64Array.of(30, -30), 1);
    expect([...kernel.edgeInformation].every((value) => Math.abs(value) < 1e-12)).toBe(true);
  });
});

describe('scoring', () => {
  it('finds the peak of a bowl in one step, and of a narrow ridge by halving', () => {
    const bowl = fisherScoring(
      {
        value: ([x = 0, y = 0]) => -((x - 3) ** 2) - 2 * (y + 1) ** 2,
        derive: ([x = 0, y = 0]) => ({
          score: Float64Array.of(-2 * (x - 3), -4 * (y + 1)),
          information: Float64Array.of(2, 0, 0, 4),
        }),
      },
      new Float64Array(2),
    );
    expect(bowl.estimate[0]).toBeCloseTo(3, 9);
    expect(bowl.estimate[1]).toBeCloseTo(-1, 9);
    const ridge = fisherScoring(
      {
        value: ([x = 0]) => -Math.log(1 + x * x),
        derive: ([x = 0]) => ({
          score: Float64Array.of((-2 * x) / (1 + x * x)),
          information: Float64Array.of(0.2),
        }),
      },
      Float64Array.of(4),
    );
    expect(Math.abs(ridge.estimate[0]!)).toBeLessThan(1e-4);
  });

  it('says when the trials do not determine the model', () => {
    const flat = {
      value: () => 0,
      derive: () => ({ score: Float64Array.of(1), information: Float64Array.of(Number.NaN) }),
    };
    expect(() => fisherScoring(flat, new Float64Array(1))).toThrow(/do not determine/);
  });
});

describe('a normal prior', () => {
  it('has the gradient of its log density, correlations included', () => {
    const prior = { mean: Float64Array.of(1, -2), precision: Float64Array.of(4, 1, 1, 3) };
    const at = Float64Array.of(0.4, 0.7);
    const score = new Float64Array(2);
    derivePrior(prior, at, score, new Float64Array(4));
    for (let j = 0; j < 2; j++) {
      const moved = (step: number) =>
        logPrior(
          prior,
          at.map((value, k) => (k === j ? value + step : value)),
        );
      expect(score[j]).toBeCloseTo((moved(1e-6) - moved(-1e-6)) / 2e-6, 5);
    }
    expect(logDetOf(choleskyOf(prior.precision, 2)!, 2)).toBeCloseTo(Math.log(11), 12);
  });
});

describe('loads', () => {
  it('group the cells of a card, cuts of their own each by themselves', () => {
    const cuts = [{ load: 1 }, {}, { load: 2 }, { load: 1 }, {}];
    expect(groupBatches(cuts).map((group) => group.length)).toEqual([2, 1, 1, 1]);
  });

  it('share half of the variance, and integrate normals exactly to the ninth power', () => {
    expect(OWN_SPREAD ** 2 + BATCH_SPREAD ** 2).toBeCloseTo(1, 12);
    expect(CELL_WEIGHT).toBeLessThan(1);
    const moment = (power: number) =>
      BATCH_NODES.reduce((sum, [node, weight]) => sum + weight * node ** power, 0);
    // Moments of a standard normal: 1, 0, 1, 0, 3, 0, 15, 0, 105 (any textbook).
    [1, 0, 1, 0, 3, 0, 15, 0, 105].forEach((value, power) => expect(moment(power)).toBeCloseTo(value, 8));
  });
});
