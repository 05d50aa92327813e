import { chooseWay } from '#core/dialIn/compareWays.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { Machine } from '#core/station/machine.ts';
import { targetIndexes } from '#core/threshold/findWindow.ts';
import type { ThresholdModel, ThresholdPosterior } from '#core/threshold/posterior.ts';
import type { ThresholdQuestion, Trial } from '#core/threshold/trial.ts';
import { forcesAround } from '#core/threshold/spreadForces.ts';
import { gfToForce } from '#core/units/forceScale.ts';
import { mmPerSToSpeed, speedToMmPerS } from '#core/units/speedScale.ts';

/** A way to go on with, on the machine's scales. */
export interface OtherWay {
  readonly passes: number;
  readonly speed: number;
  /** The best force then, and how often it cuts right, 0 to 1. */
  readonly force: number;
  readonly right: number;
  /** Seconds to cut one metre of line, lifts left out. */
  readonly secondsPerMetre: number;
}

/** What is asked of the sheet, and what was cut of it. */
interface AskedSheet {
  readonly model: ThresholdModel;
  readonly question: ThresholdQuestion;
  readonly trials: readonly Trial[];
}

/**
 * The passes and speed to go on with, where force alone does not do on this machine.
 *
 * @param chanceNow how often the best force of the asked way is right, 0 to 1
 * @returns `null` while force alone does, or no way is clearly better
 * @example findOtherWay({ model, question, trials }, 'kiss', station.machine, 0.95) // null
 */
export function findOtherWay(
  { model, question, trials }: AskedSheet,
  operation: DepthOperation,
  { forceScale, speedScale }: Machine,
  chanceNow: number,
): OtherWay | null {
  const forcesOf = (posterior: ThresholdPosterior) =>
    forcesAround(posterior, targetIndexes(posterior, operation).last, [], forceScale);
  const slowestMmPerS = speedToMmPerS(speedScale.min, speedScale);
  const way = chooseWay(model, question, trials, operation, forcesOf, { chanceNow, slowestMmPerS });
  if (!way) return null;
  return {
    passes: way.passes,
    speed: mmPerSToSpeed(way.speedMmPerS, speedScale),
    force: gfToForce(way.best.forceGf, forceScale),
    right: way.best.right,
    secondsPerMetre: way.secondsPerMetre,
  };
}
