import { POOR_CHANCE } from '#core/dialIn/adviseNextCut.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { findWindow, targetIndexes, type ForceOutlook } from '#core/threshold/findWindow.ts';
import type { ThresholdModel, ThresholdPosterior } from '#core/threshold/posterior.ts';
import type { CutConditions, ThresholdQuestion, Trial } from '#core/threshold/trial.ts';

/** One way of cutting: so many passes, so fast, with such a blade. */
export interface Way {
  readonly passes: number;
  readonly speedMmPerS: number;
  readonly isFreshBlade: boolean;
  /** The tip stands out so little that it cannot reach the mat. */
  readonly isExposureStopped: boolean;
}

/** The settable forces that matter where so much is believed. */
export type ForcesOf = (posterior: ThresholdPosterior) => readonly number[];

/** What a way would do. */
export interface WayOutlook extends Way {
  readonly best: ForceOutlook;
  /** How much more often right than the way asked about, from -1 to 1. */
  readonly gain: number;
  /** Seconds to cut one metre of line, lifts left out. */
  readonly secondsPerMetre: number;
  /** Metres of blade travel for one metre of line. */
  readonly wearMetres: number;
  /** The chance that an edge suffers: too deep, or dragged by a heavy single pass; 0 to 1. */
  readonly edgeRisk: number;
}

/** Ln force above which one pass drags and bunches a sheet more than two lighter ones. Common practice, no source. */
const HEAVY_LN = Math.log(250);

/**
 * Compares other ways of cutting with the one asked about: one heavy pass with several light ones, slower, a fresh
 * blade, an exposure that stops short of the mat. All by the model, from the same trials.
 *
 * @param forcesOf the forces to choose among where that is believed, in gf, ascending: more passes want less
 * @returns the asked way first, then the others in the order given
 * @example compareWays(model, question, trials, 'kiss', () => forces, []).length // 1
 */
export function compareWays(
  model: ThresholdModel,
  question: ThresholdQuestion,
  trials: readonly Trial[],
  operation: DepthOperation,
  forcesOf: ForcesOf,
  ways: readonly Way[],
): readonly WayOutlook[] {
  const asked: Way = { ...question.conditions, isFreshBlade: false, isExposureStopped: false };
  const now = lookAt(model, question, trials, operation, forcesOf, asked);
  return [asked, ...ways].map((way, index): WayOutlook => {
    const best = index === 0 ? now : lookAt(model, question, trials, operation, forcesOf, way);
    const heavy = 1 / (1 + Math.exp(-4 * (Math.log(best.forceGf) - HEAVY_LN)));
    return {
      ...way,
      best,
      gain: best.right - now.right,
      secondsPerMetre: (way.passes * 1000) / way.speedMmPerS,
      wearMetres: way.passes,
      edgeRisk: Math.min(1, best.over + (way.passes === 1 ? 0.3 * heavy : 0)),
    };
  });
}

/**
 * The ways worth asking about from where one stands.
 *
 * @example listWays(conditions, 'kiss').length // 2
 */
export function listWays(asked: CutConditions, operation: DepthOperation): readonly Way[] {
  const plain = { ...asked, isFreshBlade: false, isExposureStopped: false };
  const otherPasses = operation === 'through' ? [1, 2, 3, 4] : [1, 2];
  return [
    ...otherPasses.filter((passes) => passes !== asked.passes).map((passes) => ({ ...plain, passes })),
    { ...plain, speedMmPerS: asked.speedMmPerS / 2 },
    ...(asked.bladeMetres > 20 ? [{ ...plain, isFreshBlade: true }] : []),
    ...(operation === 'through' ? [{ ...plain, isExposureStopped: true }] : []),
  ];
}

/** A force that is right less often than this asks for another way. */
const GOOD_CHANCE = 0.9;
/** Another way is worth its time and the wear of the blade where it is right this much more often. */
const WORTH_A_WAY = 0.1;
/** Ways whose chances differ by less are alike: then the quicker one is taken. */
const ALIKE = 0.03;

/**
 * The way to go on with where force alone does not do: another number of passes or a lower speed that is right clearly
 * more often, the quickest of those that are about as good. What is for the hands (a fresh blade, another exposure) is
 * not chosen here.
 *
 * @param chanceNow how often the best force of the asked way is right, 0 to 1
 * @param slowestMmPerS the lowest speed of the machine
 * @returns `null` while force alone does, or no way is clearly better
 * @example chooseWay(model, question, trials, 'kiss', () => forces, { chanceNow: 0.95, slowestMmPerS: 10 }) // null
 */
export function chooseWay(
  model: ThresholdModel,
  question: ThresholdQuestion,
  trials: readonly Trial[],
  operation: DepthOperation,
  forcesOf: ForcesOf,
  { chanceNow, slowestMmPerS }: { readonly chanceNow: number; readonly slowestMmPerS: number },
): WayOutlook | null {
  if (chanceNow >= GOOD_CHANCE) return null;
  const settable = listWays(question.conditions, operation).filter(
    ({ isFreshBlade, isExposureStopped, speedMmPerS }) =>
      !isFreshBlade && !isExposureStopped && speedMmPerS >= slowestMmPerS,
  );
  const [, ...others] = compareWays(model, question, trials, operation, forcesOf, settable);
  // Where no force is good enough to keep, whatever is better is worth going on with.
  const worth = chanceNow < POOR_CHANCE ? ALIKE : WORTH_A_WAY;
  const better = others.filter(({ gain }) => gain >= worth);
  const most = Math.max(0, ...better.map(({ best }) => best.right));
  const alike = better.filter(({ best }) => best.right >= most - ALIKE);
  return alike.toSorted((a, b) => a.secondsPerMetre - b.secondsPerMetre)[0] ?? null;
}

function lookAt(
  model: ThresholdModel,
  question: ThresholdQuestion,
  trials: readonly Trial[],
  operation: DepthOperation,
  forcesOf: ForcesOf,
  way: Way,
): ForceOutlook {
  const conditions: CutConditions = {
    passes: way.passes,
    speedMmPerS: way.speedMmPerS,
    bladeMetres: way.isFreshBlade ? 0 : question.conditions.bladeMetres,
  };
  const fitted = model.fit({ ...question, conditions }, trials);
  const posterior = way.isExposureStopped ? stopAtMat(fitted) : fitted;
  return findWindow(posterior, operation, forcesOf(posterior)).best;
}

/** A tip that stands out no further than the stack is thick cannot scar the mat, whatever the force. */
function stopAtMat(posterior: ThresholdPosterior): ThresholdPosterior {
  const edges = posterior.grades.length - 1;
  const last = targetIndexes(posterior, 'through').last;
  return {
    ...posterior,
    boundaries: posterior.boundaries.map((value, index) => (index % edges === last ? 50 : value)),
  };
}
