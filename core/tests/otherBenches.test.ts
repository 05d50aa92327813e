import { describe, expect, it } from 'vitest';
import { adviseNextCut } from '#core/dialIn/adviseNextCut.ts';
import { findSurprise } from '#core/dialIn/findSurprise.ts';
import type { EvidenceSheet, SheetPlace } from '#core/knowledge/evidence.ts';
import { describeEffects } from '#core/knowledge/describeEffects.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import { drawNormal, seededRandom } from '#core/random/seededRandom.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { Stack } from '#core/stack/layer.ts';
import type { Family } from '#core/stack/families/families.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { conditions } from '#core/tests/exampleScope.ts';
import { findWindow } from '#core/threshold/findWindow.ts';
import { COMMON_PRIORS } from '#core/threshold/thresholdPriors.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';
import type { SheetTraits, Trial } from '#core/threshold/trial.ts';
import { spreadForces } from '#core/threshold/spreadForces.ts';
import type { ForceScale } from '#core/units/forceScale.ts';

/** Searches at benches that are not the demo's, and that no prior was made for. */
interface Bench {
  readonly family: Family;
  readonly stack: Stack;
  readonly scale: ForceScale;
  readonly isScaleGuessed: boolean;
  readonly operation: DepthOperation;
  /** Nominal gf at which the next grade begins. */
  readonly edgesGf: readonly number[];
  readonly grades: readonly DepthGrade[];
}

const film: Stack = [
  { role: 'face', caliperUm: 80, isMeasured: true },
  { role: 'adhesive', caliperUm: 25, isMeasured: true },
  { role: 'liner', caliperUm: 150, isMeasured: true },
];
const card: Stack = [{ role: 'body', caliperUm: 300, isMeasured: true }];
const LAYERED = [0, 1, 2, 3, 4, 5, 6, 7, 8] as const;
const SINGLE = [0, 1, 2, 7, 8] as const;
const NOISE = 0.04;

const placeOf = (bench: Bench, machineId: number, materialId: number): SheetPlace => ({
  traits: { family: bench.family, stack: bench.stack, darkness: 0 } satisfies SheetTraits,
  materialId,
  machineId,
  isScaleGuessed: bench.isScaleGuessed,
  condition: 'bare',
  lot: '',
  colour: '',
});

/** A whole search by an operator who reads every grade right. */
function search(bench: Bench, place: SheetPlace, knowledge: Knowledge | null, seed: number) {
  const random = seededRandom(seed);
  const { scale, operation, edgesGf, grades } = bench;
  const forces = spreadForces(
    {
      fromGf: scale.gfAtZero + scale.gfPerUnit * scale.min,
      toGf: scale.gfAtZero + scale.gfPerUnit * scale.max,
    },
    scale,
  );
  const question = { belief: sheetPrior(place, knowledge), conditions };
  const model = sheetModel(seed);
  const trials: Trial[] = [];
  for (;;) {
    const posterior = model.fit(question, trials);
    const { best } = findWindow(posterior, operation, forces);
    const surprise = findSurprise(model, question, trials);
    const advice = adviseNextCut(posterior, operation, forces, best, trials, {
      surpriseGf: surprise?.forceGf ?? null,
    });
    if (advice.kind === 'keep' || advice.kind === 'noWindow' || trials.length > 20) {
      const worst = operation === 'kiss' ? 6 : 8;
      return { keptGf: best.forceGf, trials, harm: trials.filter(({ grade }) => grade >= worst).length };
    }
    const { forceGf } = advice.next;
    const acting = forceGf * Math.exp(NOISE * drawNormal(random));
    const grade = grades[edgesGf.filter((edge) => acting >= edge).length] as DepthGrade;
    trials.push({ ...conditions, forceGf, grade });
  }
}

const seeds = Array.from({ length: 12 }, (_, index) => 100 + index);
const lowKiss: Bench = {
  family: 'printableVinyl',
  stack: film,
  scale: { kind: 'gramForce', min: 10, max: 350, step: 1, gfAtZero: 0, gfPerUnit: 1 },
  isScaleGuessed: false,
  operation: 'kiss',
  edgesGf: [11, 19, 22, 28, 33, 45, 60, 85],
  grades: LAYERED,
};

describe('a film that is kissed at a third of the usual force', () => {
  const found = seeds.map((seed) => search(lowKiss, placeOf(lowKiss, 1, 1), null, seed));

  it('is kept inside its window in at most five cuts, at most one of which cuts the liner', () => {
    for (const { keptGf, trials, harm } of found) {
      expect(keptGf).toBeGreaterThanOrEqual(22);
      expect(keptGf).toBeLessThanOrEqual(33);
      expect(trials.length).toBeLessThanOrEqual(6);
      expect(harm).toBeLessThanOrEqual(1);
    }
    const cuts = found.reduce((sum, { trials }) => sum + trials.length, 0) / found.length;
    expect(cuts).toBeLessThanOrEqual(5);
  });
});

/** Levels that were written down as 10 gf each and are 0.7: a window of 203 to 250 levels is 2,030 to 2,500 nominal gf. */
const guessed = (from: number, to: number): Bench => ({
  family: 'cardstock',
  stack: card,
  scale: { kind: 'level', min: 1, max: 350, step: 1, gfAtZero: 0, gfPerUnit: 10 },
  isScaleGuessed: true,
  operation: 'through',
  edgesGf: [from * 4, from * 9, from * 10, to * 10],
  grades: SINGLE,
});

describe('levels that nobody weighed, off fourteen times over', () => {
  const sheets = [guessed(203, 250), guessed(205, 255), guessed(186, 232)];
  const weighed: EvidenceSheet[] = [60, 70, 80, 90].map((forceGf, index) => ({
    ...placeOf(lowKiss, 9, 50 + index),
    trials: [
      { ...conditions, forceGf: forceGf * 0.8, grade: 2 },
      { ...conditions, forceGf, grade: 3 },
      { ...conditions, forceGf, grade: 3 },
    ],
  }));
  const play = (seed: number) => {
    const book = [...weighed];
    return sheets.map((bench, index) => {
      const place = placeOf(bench, 2, 10 + index);
      const found = search(bench, place, fitKnowledge(book), seed);
      book.push({ ...place, trials: found.trials });
      return { ...found, book: [...book] };
    });
  };
  const plays = seeds.slice(0, 6).map(play);

  it('are found in at most eight cuts, and the third card of one make in at most five, in the mean', () => {
    const meanOf = (index: number) =>
      plays.reduce((sum, play) => sum + play[index]!.trials.length, 0) / plays.length;
    expect(meanOf(0)).toBeLessThanOrEqual(8);
    expect(meanOf(2)).toBeLessThanOrEqual(5);
    for (const [first, , third] of plays) {
      expect(first!.harm + third!.harm).toBeLessThanOrEqual(2);
      // Found once, the levels are known: the next search begins near.
      expect(third!.trials[0]!.forceGf).toBeGreaterThan(1_000);
      expect(third!.keptGf).toBeGreaterThan(1_780);
      expect(third!.keptGf).toBeLessThan(2_400);
    }
  });

  it('are told in a sentence of their own', () => {
    const knowledge = fitKnowledge(plays[0]!.at(-1)!.book);
    const told = describeEffects(knowledge, COMMON_PRIORS, new Map([[2, 'Knot']]), new Map([[2, 14]]));
    expect(told.find(({ name }) => name === 'levels:2')!.words).toMatch(
      /^Knot, whose levels nobody weighed, wants \d+ % more than its scale says \(± \d+ %\), from 14 trials\.$/,
    );
  });

  it('move what a weighed machine is told by less than a tenth', () => {
    const asked = { ...placeOf(guessed(1, 2), 9, 99), isScaleGuessed: false };
    const told = (book: readonly EvidenceSheet[]) => sheetPrior(asked, fitKnowledge(book)).mean[0]!;
    for (const play of plays) {
      expect(Math.abs(told(play.at(-1)!.book) - told(weighed))).toBeLessThan(Math.log(1.1));
    }
  });
});
