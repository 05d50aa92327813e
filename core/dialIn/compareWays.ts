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
 * @param forcesGf every force the machine can be set to, in gf, ascending
 * @returns the asked way first, then the others in the order given
 * @example compareWays(model, question, trials, 'kiss', forces, []).length // 1
 */
export function compareWays(
  model: ThresholdModel,
  question: ThresholdQuestion,
  trials: readonly Trial[],
  operation: DepthOperation,
  forcesGf: readonly number[],
  ways: readonly Way[],
): readonly WayOutlook[] {
  const asked: Way = { ...question.conditions, isFreshBlade: false, isExposureStopped: false };
  const now = lookAt(model, question, trials, operation, forcesGf, asked);
  return [asked, ...ways].map((way, index): WayOutlook => {
    const best = index === 0 ? now : lookAt(model, question, trials, operation, forcesGf, way);
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

function lookAt(
  model: ThresholdModel,
  question: ThresholdQuestion,
  trials: readonly Trial[],
  operation: DepthOperation,
  forcesGf: readonly number[],
  way: Way,
): ForceOutlook {
  const conditions: CutConditions = {
    passes: way.passes,
    speedMmPerS: way.speedMmPerS,
    bladeMetres: way.isFreshBlade ? 0 : question.conditions.bladeMetres,
  };
  const posterior = model.fit({ ...question, conditions }, trials);
  return findWindow(way.isExposureStopped ? stopAtMat(posterior) : posterior, operation, forcesGf).best;
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
