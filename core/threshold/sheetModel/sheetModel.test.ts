import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import { drawNormal, seededRandom } from '#core/random/seededRandom.ts';
import type { Layer } from '#core/stack/layer.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import { choleskyOf, solveTransposed } from '#core/threshold/numerics/cholesky.ts';
import { estimateTipDepth } from '#core/threshold/estimateTipDepth.ts';
import { FAST_PROBIT } from '#core/threshold/numerics/fastProbit.ts';
import { findWindow } from '#core/threshold/findWindow.ts';
import { gradeIntervals } from '#core/threshold/sheetModel/gradeIntervals.ts';
import { LOGIT, PROBIT } from '#core/threshold/numerics/link.ts';
import { normalCdf } from '#core/threshold/numerics/normal.ts';
import { predictGrades } from '#core/threshold/predictGrades.ts';
import { sheetBoundaries } from '#core/threshold/sheetModel/sheetBoundaries.ts';
import { SHEET_LIKELIHOODS } from '#core/threshold/sheetModel/sheetLikelihood.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';
import type { SheetTraits, Trial } from '#core/threshold/trial.ts';
import { weightedQuantiles } from '#core/threshold/numerics/weightedQuantiles.ts';
import { often } from '#core/tests/often.ts';

const vinylStack: readonly Layer[] = [
  { role: 'face', caliperUm: 80, isMeasured: true },
  { role: 'adhesive', caliperUm: 25, isMeasured: true },
  { role: 'liner', caliperUm: 140, isMeasured: true },
];
const vinyl: SheetTraits = { family: 'printableVinyl', stack: vinylStack, darkness: 0 };
const card: SheetTraits = {
  family: 'cardstock',
  stack: [{ role: 'body', caliperUm: 290, isMeasured: true }],
  darkness: 0.2,
};
const conditions = { passes: 1, speedMmPerS: 100, bladeMetres: 0 };
const forces = Array.from({ length: 99 }, (_, index) => 10 + index * 5);
const cut = (forceGf: number, grade: DepthGrade): Trial => ({ ...conditions, forceGf, grade });
const model = sheetModel(11);
const believe = (traits: SheetTraits) =>
  sheetPrior({ traits, materialId: 1, machineId: 1, condition: 'bare', lot: '', colour: '' }, null);

describe('the sheet model', () => {
  it('keeps boundaries ascending for any parameters', () => {
    const parameter = fc.double({ min: -4, max: 4, noNaN: true });
    fc.assert(
      fc.property(fc.array(parameter, { minLength: 12, maxLength: 12 }), (values) => {
        const { positions } = sheetBoundaries(Float64Array.from(values));
        for (let edge = 1; edge < positions.length; edge++) {
          expect(positions[edge]).toBeGreaterThanOrEqual(positions[edge - 1] as number);
        }
      }),
      { seed: 4 },
    );
  });

  it.each([
    ['layered', vinyl, 3],
    ['single', card, 7],
  ] as const)('has exact gradients on a %s sheet (central differences, 1e-5)', (kind, sheet, grade) => {
    const likelihood = SHEET_LIKELIHOODS[kind];
    const one = { forceGf: 190, passes: 2, speedMmPerS: 60, bladeMetres: 300 };
    const trials = [
      likelihood.prepare({ ...one, grade }),
      likelihood.prepare({ ...one, grade: 1, upTo: grade, weight: 0.4 }),
    ];
    const { mean } = believe(sheet);
    mean[4] = Math.log(0.4);
    const size = mean.length;
    const score = new Float64Array(size);
    likelihood.derive(trials, mean, score, new Float64Array(size * size));
    for (let j = 0; j < size; j++) {
      const at = (step: number) =>
        likelihood.value(
          trials,
          mean.map((value, k) => (k === j ? value + step : value)),
        );
      expect(score[j]).toBeCloseTo((at(1e-5) - at(-1e-5)) / 2e-5, 5);
    }
  });

  it('expects of one cut the information that its nine possible grades carry on average', () => {
    const likelihood = SHEET_LIKELIHOODS.layered;
    const { mean } = believe(vinyl);
    const trial = { ...conditions, forceGf: 62 };
    const size = mean.length;
    const information = new Float64Array(size * size);
    likelihood.derive(
      [likelihood.prepare({ ...trial, grade: 3 })],
      mean,
      new Float64Array(size),
      information,
    );
    // The variance of the score is the information: summed exactly over the nine grades instead of simulated.
    let variance = 0;
    let total = 0;
    for (const grade of likelihood.grades) {
      const prepared = likelihood.prepare({ ...trial, grade });
      const chance = Math.exp(likelihood.value([prepared], mean));
      const score = new Float64Array(size);
      likelihood.derive([prepared], mean, score, new Float64Array(size * size));
      variance += chance * (score[0] as number) ** 2;
      total += chance;
    }
    expect(total).toBeCloseTo(1, 7);
    expect((information[0] as number) / variance).toBeCloseTo(1, 6);
  });

  it('lets the cells of one load share their noise: six cells of a card say less than six loads', () => {
    const cells = [40, 55, 70, 85, 100, 120].map((force, index) =>
      cut(force, ([1, 1, 2, 3, 3, 4] as const)[index] as DepthGrade),
    );
    const widthOf = (trials: readonly Trial[]) => {
      const { lowerEdge } = findWindow(
        model.fit({ belief: believe(vinyl), conditions }, trials),
        'kiss',
        forces,
      );
      return Math.log(lowerEdge.highGf / lowerEdge.lowGf);
    };
    expect(widthOf(cells.map((cell) => ({ ...cell, load: 1 })))).toBeGreaterThan(widthOf(cells) * 1.05);
  });

  it('predicts grades that sum to 1 and get deeper with force', () => {
    const posterior = model.fit({ belief: believe(vinyl), conditions }, []);
    let last = -1;
    for (const force of [20, 60, 120, 300, 800]) {
      const chances = predictGrades(posterior, force);
      expect(chances.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
      const expected = chances.reduce((sum, chance, grade) => sum + chance * grade, 0);
      expect(expected).toBeGreaterThan(last);
      last = expected;
    }
  });

  it('starts at the usual force of the family within the spread of makes', () => {
    const { lowerEdge } = findWindow(model.fit({ belief: believe(vinyl), conditions }, []), 'kiss', forces);
    // T4: film kissed at 25 to 85 gf (common practice, no source)
    expect(lowerEdge.middleGf).toBeGreaterThan(25);
    expect(lowerEdge.middleGf).toBeLessThan(85);
    expect(lowerEdge.highGf / lowerEdge.lowGf).toBeGreaterThan(2.5);
  });

  it('closes the window in around what the test cuts show', () => {
    const before = findWindow(model.fit({ belief: believe(vinyl), conditions }, []), 'kiss', forces);
    const trials = [cut(50, 1), cut(80, 2), cut(95, 3), cut(110, 4), cut(140, 5)];
    const after = findWindow(model.fit({ belief: believe(vinyl), conditions }, trials), 'kiss', forces);
    const width = (edge: typeof before.lowerEdge) => Math.log(edge.highGf / edge.lowGf);
    expect(width(after.lowerEdge)).toBeLessThan(width(before.lowerEdge) / 3);
    expect(after.best.forceGf).toBeGreaterThan(85);
    expect(after.best.forceGf).toBeLessThan(125);
    expect(after.best.right).toBeGreaterThan(0.85);
  });

  it('is not carried away by one grade that contradicts the others', () => {
    const steady = [cut(60, 1), cut(80, 2), cut(95, 3), cut(105, 3), cut(120, 4)];
    const honest = findWindow(model.fit({ belief: believe(vinyl), conditions }, steady), 'kiss', forces);
    const misread = findWindow(
      model.fit({ belief: believe(vinyl), conditions }, [...steady, cut(100, 5)]),
      'kiss',
      forces,
    );
    expect(Math.abs(Math.log(misread.best.forceGf / honest.best.forceGf))).toBeLessThan(0.12);
  });

  it('expects to need more force with a worn blade and less with a second pass', () => {
    const trials = [cut(160, 1), cut(200, 2), cut(240, 7)];
    const edgeAt = (changed: Partial<typeof conditions>) =>
      findWindow(
        model.fit({ belief: believe(card), conditions: { ...conditions, ...changed } }, trials),
        'through',
        forces,
      ).lowerEdge.middleGf;
    expect(edgeAt({ bladeMetres: 500 })).toBeGreaterThan(edgeAt({}));
    expect(edgeAt({ passes: 2 })).toBeLessThan(edgeAt({}));
  });

  it('covers the true boundaries of simulated sheets about as often as it says (90 % intervals, 80 to 98 %)', () => {
    const random = seededRandom(99);
    let covered = 0;
    const sheets = often(25, 60);
    for (let sheet = 0; sheet < sheets; sheet++) {
      const { mean, precision } = believe(vinyl);
      const step = solveTransposed(
        choleskyOf(precision, mean.length) as Float64Array,
        mean.length,
        mean.map(() => drawNormal(random)),
      );
      const truth = mean.map((middle, j) => middle + (step[j] as number));
      const { positions } = sheetBoundaries(truth);
      const trials = [40, 60, 80, 110].map((forceGf) => {
        const latent =
          Math.log(forceGf) - (truth[0] as number) + Math.exp(truth[4] as number) * drawNormal(random);
        return cut(forceGf, positions.filter((edge) => latent > edge).length as DepthGrade);
      });
      const { lowerEdge } = findWindow(
        model.fit({ belief: believe(vinyl), conditions }, trials),
        'kiss',
        forces,
      );
      const edge = Math.exp(truth[0] as number);
      if (edge >= lowerEdge.lowGf && edge <= lowerEdge.highGf) covered += 1;
    }
    expect(covered / sheets).toBeGreaterThan(0.8);
    expect(covered / sheets).toBeLessThan(0.98);
  });

  it('puts the tip deeper with force, never beyond its exposure', () => {
    const posterior = model.fit({ belief: believe(vinyl), conditions }, [
      cut(50, 1),
      cut(80, 3),
      cut(120, 4),
    ]);
    const at = (force: number, exposureMm = 0.5) =>
      estimateTipDepth(posterior, vinylStack, force, exposureMm).middleUm;
    expect(at(80)).toBeGreaterThan(at(60));
    expect(at(80)).toBeGreaterThanOrEqual(100);
    expect(at(400, 0.2)).toBe(200);
  });

  it('refuses a kiss on a single layer, a grade the sheet cannot show, and a force of nothing', () => {
    const posterior = model.fit({ belief: believe(card), conditions }, []);
    expect(() => findWindow(posterior, 'kiss', forces)).toThrow(/nothing to kiss/);
    expect(() => model.fit({ belief: believe(card), conditions }, [cut(100, 4)])).toThrow(/no grade 4/);
    expect(() => model.fit({ belief: believe(card), conditions }, [cut(0, 1)])).toThrow(/not above 0/);
  });

  it('is the same for the same question and seed', () => {
    const again = sheetModel(11).fit({ belief: believe(vinyl), conditions }, [cut(60, 2)]);
    expect(again).toEqual(model.fit({ belief: believe(vinyl), conditions }, [cut(60, 2)]));
  });
});

describe('small pieces of the model', () => {
  it('answer quickly with a relative error below 1e-8 of the exact tail', () => {
    for (let x = 0.001; x < 14; x += 0.0137) {
      const exact = normalCdf(-x);
      expect(Math.abs(FAST_PROBIT.cdf(-x) / exact - 1)).toBeLessThan(x < 12 ? 1e-8 : 1e-3);
      expect(FAST_PROBIT.cdf(x)).toBeCloseTo(1 - exact, 9);
    }
  });

  it('keep their digits in the upper tail', () => {
    const tail = gradeIntervals(PROBIT, Float64Array.of(9, 8), new Float64Array(3));
    // pnorm(8, lower.tail = FALSE) - pnorm(9, lower.tail = FALSE), R 4.2: 6.2198e-16
    expect(tail[1]).toBeCloseTo(6.2198e-16, 19);
    expect(gradeIntervals(PROBIT, Float64Array.of(30, 20), tail)[1]).toBeGreaterThan(0);
    expect(gradeIntervals(LOGIT, Float64Array.of(-40, -50), tail)[1]).toBeGreaterThan(0);
  });

  it('find weighted quantiles', () => {
    expect(weightedQuantiles([3, 1, 2], [0.2, 0.5, 0.3], [0, 0.5, 1])).toEqual([1, 1, 3]);
  });
});
