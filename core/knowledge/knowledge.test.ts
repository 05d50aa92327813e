import { describe, expect, it } from 'vitest';
import { sheetPriorInDetail, sheetPrior } from '#core/knowledge/sheetPrior.ts';
import { layer, writeBook, type Truth } from '#core/tests/writeBook.ts';
import { listSharedEffects } from '#core/knowledge/sharedEffects.ts';
import { describeEffects, forceFactorOf } from '#core/knowledge/describeEffects.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { learnSpreads } from '#core/knowledge/learnSpreads.ts';
import { deriveMaterial, mapMaterial, valueMaterial } from '#core/knowledge/materialFit.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import { choleskyOf, invertCholesky, type SquareMatrix } from '#core/threshold/numerics/cholesky.ts';
import { fisherScoring } from '#core/threshold/numerics/fisherScoring.ts';
import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import { COMMON_PRIORS } from '#core/threshold/thresholdPriors.ts';

const truth: Truth = { machines: [0.12, -0.1, 0], families: { printableVinyl: 0.2, cardstock: -0.25 } };
const book = writeBook(120, truth, seededRandom(3));
const fitted = fitKnowledge(book);
const effect = (name: string) => fitted.mean[fitted.names.indexOf(name)]!;

describe('the knowledge of a book', () => {
  it('finds the machines and families that 120 simulated sheets were written with (within 3 of its own sd)', () => {
    const covariance = invert(Float64Array.from(fitted.information), fitted.names.length);
    const sdOf = (name: string) => {
      const at = fitted.names.indexOf(name);
      return Math.sqrt(covariance[at * fitted.names.length + at]!);
    };
    const { mean: usual } = COMMON_PRIORS.beliefs.layeredOffset;
    const known: readonly (readonly [string, number])[] = [
      ['machine:1', 0.12],
      ['machine:2', -0.1],
      ['family:printableVinyl', usual + 0.2],
      ['family:cardstock', COMMON_PRIORS.beliefs.singleOffset.mean - 0.25],
    ];
    for (const [name, value] of known) {
      expect(Math.abs(effect(name) - value), name).toBeLessThan(3 * sdOf(name));
      expect(sdOf(name), name).toBeLessThan(0.09);
    }
    // Neither machine can take over what the family does: the difference is nearly sure.
    expect(effect('machine:1') - effect('machine:2')).toBeCloseTo(0.22, 1);
  });

  it('is the peak that a dense fit of all effects at once finds (0.02 in ln force, 60 effects)', () => {
    const small = book.slice(0, 9);
    const arrow = fitKnowledge(small);
    const sharedEffects = listSharedEffects([1, 2, 3], COMMON_PRIORS);
    const materials = small.map((sheet) => mapMaterial([sheet], sharedEffects, COMMON_PRIORS));
    const dense = fitDense(sharedEffects, materials);
    arrow.names.forEach((name, index) => {
      expect(Math.abs(arrow.mean[index]! - dense[sharedEffects.places.get(name)!]!), name).toBeLessThan(0.02);
    });
  });

  it('starts again from what it knew: the same peak in fewer steps', () => {
    const before = fitKnowledge(book.slice(0, -2));
    const warm = fitKnowledge(book, { start: before });
    expect(warm.iterations).toBeLessThan(fitted.iterations);
    for (const name of ['machine:1', 'family:cardstock', 'passes', 'wear']) {
      expect(Math.abs(warm.mean[warm.names.indexOf(name)]! - effect(name)), name).toBeLessThan(0.02);
    }
  });

  it('knows nothing of an empty book but the priors', () => {
    const empty = fitKnowledge([]);
    expect(empty.trialCount).toBe(0);
    expect(empty.mean[empty.names.indexOf('passes')]).toBe(COMMON_PRIORS.beliefs.passes.mean);
  });

  it('counts a trial of half weight twice as one trial', () => {
    const one = fitKnowledge(book.slice(0, 6));
    const halves = book.slice(0, 6).map((sheet) => ({
      ...sheet,
      trials: sheet.trials.flatMap((trial) => [
        { ...trial, weight: 0.5 },
        { ...trial, weight: 0.5 },
      ]),
    }));
    fitKnowledge(halves).mean.forEach((value, index) => expect(value).toBeCloseTo(one.mean[index]!, 6));
  });

  it('says every effect in a sentence, the machine with its trials', () => {
    const names = new Map([
      [1, 'Gannet'],
      [2, 'Dunlin'],
      [3, 'Skua'],
    ]);
    const readings = describeEffects(fitted, COMMON_PRIORS, names, new Map([[1, 240]]));
    const gannet = readings.find(({ name }) => name === 'machine:1')!;
    expect(gannet.words).toMatch(
      /^Gannet wants \d+ % less than its scale says \(± \d+ %\), from 240 trials\.$/,
    );
    expect(gannet.learnt).toBeGreaterThan(0.3);
    expect(readings.every(({ words }) => words.endsWith('.'))).toBe(true);
    // The doubt is of what the sentence says: a fifth more caliper moves ln force by ln 1.2 of the coefficient.
    const face = readings.find(({ name }) => name === 'faceCaliper')!;
    expect(Math.abs(Math.log(forceFactorOf('faceCaliper', face.sd)))).toBeCloseTo(
      face.sd * Math.log(1.2),
      12,
    );
    expect(readings.find(({ name }) => name === 'wear')!.words).toMatch(/± [1-6] %|usual belief/);
  });
});

describe('the spreads of a book', () => {
  it('are learnt by their evidence: near the 0.15 the sheets were written with, far from the 0.27 believed', () => {
    const spreads = learnSpreads(book, fitted)!;
    expect(spreads.sheet).toBeGreaterThan(0.11);
    expect(spreads.sheet).toBeLessThan(0.21);
    expect(fitKnowledge(book, { spreads }).logMarginal).toBeGreaterThan(fitted.logMarginal);
  });

  it('stay as believed in a book too small to say, and do not collapse where sheets are alike', () => {
    expect(learnSpreads(book.slice(0, 5), fitKnowledge(book.slice(0, 5)))).toBeNull();
    const alike = writeBook(40, truth, seededRandom(8));
    expect(learnSpreads(alike, fitKnowledge(alike))!.reachSheet).toBeGreaterThan(0.08);
  });
});

describe('what is believed of a sheet', () => {
  const asked = { ...book[0]!, trials: [] };

  it('takes out what its own trials taught: as if the book had been fitted without them', () => {
    const learnt = [book[0]!];
    const cavity = sheetPrior(asked, fitted, { learnt, all: learnt });
    const without = sheetPrior(asked, fitKnowledge(book.slice(1)));
    expect(Math.abs(cavity.mean[P.threshold]! - without.mean[P.threshold]!)).toBeLessThan(0.015);
    expect(sd(cavity, P.threshold) / sd(without, P.threshold)).toBeGreaterThan(0.95);
    expect(sd(cavity, P.threshold) / sd(without, P.threshold)).toBeLessThan(1.05);
  });

  it('does so also where grades contradict each other, from a cold fit and from a warm one', () => {
    const odd = {
      ...book[0]!,
      trials: [...book[0]!.trials, { ...book[0]!.trials[5]!, grade: 1 as DepthGrade }],
    };
    const whole = [odd, ...book.slice(1)];
    const without = sheetPrior(asked, fitKnowledge(book.slice(1)));
    for (const start of [null, fitted]) {
      const cavity = sheetPrior(asked, fitKnowledge(whole, { start }), { learnt: [odd], all: [odd] });
      for (const parameter of [P.threshold, P.gap, P.scored]) {
        expect(Math.abs(cavity.mean[parameter]! - without.mean[parameter]!)).toBeLessThan(0.04);
      }
    }
  });

  it('is narrower with a book than from the stack alone, and narrower still with the same make elsewhere', () => {
    const alone = sheetPrior(asked, null);
    const read = sheetPrior(asked, fitted, { learnt: [book[0]!], all: [book[0]!] });
    const elsewhere = { ...book[0]!, machineId: 2 };
    const family = sheetPrior(asked, fitted, { learnt: [book[0]!], all: [elsewhere] });
    expect(sd(read, P.threshold)).toBeLessThan(sd(alone, P.threshold));
    expect(sd(family, P.threshold)).toBeLessThan(sd(read, P.threshold) * 0.8);
  });

  it('leaves room for another lot: nearly the same sheet, not the same', () => {
    const own = { ...book[0]!, lot: 'A' };
    const sameLot = sheetPrior({ ...asked, lot: 'B' }, null, { learnt: [], all: [own] });
    const lotSd = COMMON_PRIORS.beliefs.lot.sd;
    expect(sd(sameLot, P.threshold)).toBeGreaterThan(lotSd);
    expect(sd(sameLot, P.threshold)).toBeLessThan(sd(sheetPrior(asked, null), P.threshold) * 0.6);
  });

  it('names what each thing known of the sheet adds; the parts sum to the whole', () => {
    const printed = {
      ...asked,
      traits: { ...asked.traits, stack: [layer('ink', 2), ...asked.traits.stack], darkness: 0.5 },
      condition: 'printed',
    };
    const { belief, effects } = sheetPriorInDetail(printed, fitted);
    const sum = effects.reduce((total, { adds }) => total + adds, 0);
    const { usualGf } = COMMON_PRIORS.habits.printableVinyl;
    expect(belief.mean[P.threshold]).toBeCloseTo(Math.log(usualGf) + sum, 9);
    expect(effects.map(({ effect: name }) => name)).toEqual(
      expect.arrayContaining(['ink', 'darkness', 'machine:1', 'own:threshold', 'own:condition:printed']),
    );
  });

  it('follows the beliefs of a workshop where it has its own', () => {
    const beliefs = { ...COMMON_PRIORS.beliefs, sheet: { mean: 0, sd: 0.05, reason: 'one maker only' } };
    const narrow = sheetPrior(asked, null, { learnt: [], all: [] }, { ...COMMON_PRIORS, beliefs });
    expect(sd(narrow, P.threshold)).toBeLessThan(sd(sheetPrior(asked, null), P.threshold));
  });
});

function sd({ precision, mean }: { precision: SquareMatrix; mean: Float64Array }, at: number): number {
  return Math.sqrt(invert(precision, mean.length)[at * mean.length + at]!);
}

function invert(matrix: SquareMatrix, size: number): SquareMatrix {
  return invertCholesky(choleskyOf(matrix, size)!, size);
}

/** Every effect of a small book in one vector and one dense matrix: slow, and without a Schur complement. */
function fitDense(
  sharedEffects: ReturnType<typeof listSharedEffects>,
  materials: readonly ReturnType<typeof mapMaterial>[],
): Float64Array {
  const shared = sharedEffects.names.length;
  const starts = materials.map((_, index) =>
    materials.slice(0, index).reduce((sum, { ownNames }) => sum + ownNames.length, shared),
  );
  const size = materials.reduce((sum, { ownNames }) => sum + ownNames.length, shared);
  const placesOf = (index: number) => [
    ...materials[index]!.touched,
    ...materials[index]!.ownNames.map((_, own) => starts[index]! + own),
  ];
  const local = (index: number, whole: Float64Array) =>
    Float64Array.from(placesOf(index), (place) => whole[place]!);
  const start = new Float64Array(size);
  start.set(sharedEffects.mean);
  return fisherScoring(
    {
      value: (whole) =>
        sharedEffects.names.reduce(
          (sum, _, j) => sum - 0.5 * ((whole[j]! - sharedEffects.mean[j]!) / sharedEffects.sd[j]!) ** 2,
          0,
        ) + materials.reduce((sum, material, index) => sum + valueMaterial(material, local(index, whole)), 0),
      derive: (whole) => {
        const score = new Float64Array(size);
        const information = new Float64Array(size * size);
        sharedEffects.names.forEach((_, j) => {
          score[j] = (sharedEffects.mean[j]! - whole[j]!) / sharedEffects.sd[j]! ** 2;
          information[j * size + j] = 1 / sharedEffects.sd[j]! ** 2;
        });
        materials.forEach((material, index) => {
          const own = deriveMaterial(material, local(index, whole));
          const places = placesOf(index);
          places.forEach((row, a) => {
            score[row]! += own.score[a]!;
            places.forEach(
              (column, b) => (information[row * size + column]! += own.information[a * places.length + b]!),
            );
          });
        });
        return { score, information };
      },
    },
    start,
    1e-6,
  ).estimate;
}
