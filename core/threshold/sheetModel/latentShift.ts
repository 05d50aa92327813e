import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import type { CutConditions } from '#core/threshold/trial.ts';

/**
 * How much each effect counts under given conditions: the multipliers of passes, wear and speed.
 *
 * @example effectMultipliers(conditions).passes // 0
 */
export function effectMultipliers(conditions: CutConditions): {
  readonly passes: number;
  readonly wear: number;
  readonly speed: number;
} {
  return {
    passes: Math.log(conditions.passes),
    wear: -Math.log(1 + conditions.bladeMetres / 500),
    speed: -Math.log(conditions.speedMmPerS / 100),
  };
}

/**
 * What conditions add to ln force: more passes cut as more force would, a worn blade or haste as less.
 *
 * @example latentShift(question.belief.mean, conditions) // 0
 */
export function latentShift(parameters: Float64Array, conditions: CutConditions): number {
  return shiftBy(parameters, effectMultipliers(conditions));
}

/**
 * The same, from multipliers that were worked out before.
 *
 * @example shiftBy(question.belief.mean, { passes: 0, wear: 0, speed: 0 }) // 0
 */
export function shiftBy(parameters: Float64Array, by: ReturnType<typeof effectMultipliers>): number {
  return (
    (parameters[P.passes] as number) * by.passes +
    (parameters[P.wear] as number) * by.wear +
    (parameters[P.speed] as number) * by.speed
  );
}
