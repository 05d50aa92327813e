import { itemAt } from '#core/collections/itemAt.ts';
import { NOTHING } from '#core/units/rounding.ts';
import { CONFIRMING_CELLS, LADDER_CELLS } from '#core/dialIn/chooseLadder.ts';
import { WORTHWHILE_GAIN } from '#core/dialIn/proposeNextCut.ts';
import { proposeNextCut } from '#core/dialIn/proposeNextCut.ts';
import { drawNormal, seededRandom, type Random } from '#core/random/seededRandom.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { MachineKind } from '#core/station/machine.ts';
import { misjudge, misjudgingMatrix } from '#core/threshold/sheetModel/misjudging.ts';
import { gradesOfDraw } from '#core/threshold/predictGrades.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';
import { resampleDraws } from '#core/threshold/numerics/resampleDraws.ts';

/** A cell of a test card with its gap, mm. */
const CELL_MM = 14;

/** Hands at a machine: a load is putting on, cutting, taking off. Common practice, no source. */
const HANDLING: Readonly<Record<MachineKind, { readonly minutesPerLoad: number; readonly stripMm: number }>> =
  {
    matFed: { minutesPerLoad: 1.5, stripMm: 0 },
    rollFed: { minutesPerLoad: 3, stripMm: 25 },
    flatbed: { minutesPerLoad: 1, stripMm: 0 },
  };
/** Looking at one cell from both sides and tapping its grade. Common practice, no source. */
const MINUTES_PER_GRADE = 0.25;

/** What a way of testing costs from here to a kept setting, expected. */
export interface Effort {
  readonly cuts: number;
  readonly loads: number;
  readonly minutes: number;
  /** Sheet used up, cm². */
  readonly sheetCm2: number;
}

/** Both ways, the cheaper one first in `advised`. */
export interface EffortComparison {
  readonly oneAtATime: Effort;
  readonly ladder: Effort;
  readonly advised: 'oneAtATime' | 'ladder';
  readonly reason: string;
}

const ROLLOUTS = 10;
const ROLLOUT_DRAWS = 250;
const MOST_CUTS = 10;

/**
 * Compares cutting one at a time with a ladder card. The cuts still to come are counted by playing the policy against
 * truths drawn from what is believed now, so a sheet that is nearly known asks for fewer.
 *
 * @param sheetWidthMm a roll-fed machine spends a strip across this width on every load
 * @example estimateEffort(posterior, 'kiss', forces, { kind: 'rollFed', sheetWidthMm: 300 }, 1).ladder.loads // 2
 */
export function estimateEffort(
  posterior: ThresholdPosterior,
  operation: DepthOperation,
  forcesGf: readonly number[],
  machine: { readonly kind: MachineKind; readonly sheetWidthMm: number },
  seed: number,
): EffortComparison {
  const cuts = expectCuts(posterior, operation, forcesGf, seededRandom(seed));
  const oneAtATime = costOf(cuts, cuts, 1, machine);
  const ladder = costOf(LADDER_CELLS + CONFIRMING_CELLS, 2, LADDER_CELLS, machine);
  const minutes = oneAtATime.minutes - ladder.minutes;
  const sheet = oneAtATime.sheetCm2 - ladder.sheetCm2;
  const isLadder = minutes + MINUTES_PER_CM2 * sheet > 0;
  return {
    oneAtATime,
    ladder,
    advised: isLadder ? 'ladder' : 'oneAtATime',
    reason: explain(isLadder, minutes, sheet),
  };
}

/**
 * What pieces cut one to a load cost at a bench, in minutes.
 *
 * @example minutesOf(4, 'matFed') // 7
 */
export function minutesOf(pieces: number, kind: MachineKind): number {
  return pieces * (HANDLING[kind].minutesPerLoad + MINUTES_PER_GRADE);
}

/** What sheet is worth in minutes at the bench: a hand's breadth square, two minutes. Common practice, no source. */
const MINUTES_PER_CM2 = 0.02;

function costOf(
  cuts: number,
  loads: number,
  cellsAcross: number,
  { kind, sheetWidthMm }: { readonly kind: MachineKind; readonly sheetWidthMm: number },
): Effort {
  const { minutesPerLoad, stripMm } = HANDLING[kind];
  const cells = (cuts * CELL_MM * CELL_MM) / 100;
  const strips = (loads * stripMm * Math.max(sheetWidthMm, cellsAcross * CELL_MM)) / 100;
  return {
    cuts,
    loads,
    minutes: loads * minutesPerLoad + cuts * MINUTES_PER_GRADE,
    sheetCm2: Math.max(cells, strips),
  };
}

function explain(isLadder: boolean, minutes: number, sheet: number): string {
  const time = `${Math.max(1, Math.round(Math.abs(minutes)))} min`;
  const area = `${Math.max(1, Math.round(Math.abs(sheet)))} cm² of sheet`;
  const [how, savedTime, savedSheet] = isLadder
    ? (['two loads instead of several', minutes, sheet] as const)
    : (['loads are quick here, or little is left to find', -minutes, -sheet] as const);
  const parts = [
    ...(Math.abs(savedTime) < 0.5 ? [] : [`${savedTime > 0 ? 'saves' : 'costs'} about ${time}`]),
    ...(Math.abs(savedSheet) < 1 ? [] : [`${savedSheet > 0 ? 'saves' : 'costs'} ${area}`]),
  ];
  return parts.length === 0 ? how : `${how}: ${parts.join(', ')}`;
}

/** Plays the one-at-a-time policy against truths drawn from the posterior, by reweighting its own draws. */
function expectCuts(
  posterior: ThresholdPosterior,
  operation: DepthOperation,
  forcesGf: readonly number[],
  random: Random,
): number {
  const thinned = resampleDraws(posterior, ROLLOUT_DRAWS, random);
  let total = 0;
  for (let rollout = 0; rollout < ROLLOUTS; rollout++) {
    const truth = Math.floor(random() * thinned.drawCount);
    total += playOnce(thinned, truth, operation, forcesGf, random);
  }
  return total / ROLLOUTS;
}

function playOnce(
  start: ThresholdPosterior,
  truth: number,
  operation: DepthOperation,
  forcesGf: readonly number[],
  random: Random,
): number {
  const matrix = misjudgingMatrix(start.grades.length);
  const chances = new Float64Array(start.grades.length);
  const seenChances = new Float64Array(start.grades.length);
  let now = start;
  for (let cuts = 0; cuts < MOST_CUTS; cuts++) {
    const next = proposeNextCut(now, operation, forcesGf);
    if (cuts > 0 && next.gain < WORTHWHILE_GAIN) return cuts;
    const noisy = Math.log(next.forceGf) + itemAt(start.spreads, truth) * drawNormal(random);
    const edges = start.grades.length - 1;
    let seen = 0;
    while (seen < edges && noisy > itemAt(start.boundaries, truth * edges + seen)) seen += 1;
    const weights = now.weights.map((weight, draw) => {
      gradesOfDraw(start, draw, Math.log(next.forceGf), chances);
      misjudge(chances, matrix, seenChances);
      return weight * Math.max(itemAt(seenChances, seen), NOTHING);
    });
    const sum = weights.reduce((a, b) => a + b, 0);
    now = { ...now, trialCount: now.trialCount + 1, weights: weights.map((weight) => weight / sum) };
  }
  return MOST_CUTS;
}
