import type { FreeingWay } from '#core/passes/compareFreeing.ts';
import { LIGHT_PASSES, PASS_POWER, repeatsToFree } from '#core/passes/compareFreeing.ts';
import { AppError } from '#core/errors/appError.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { gfOf, gfToForce, type ForceScale } from '#core/units/forceScale.ts';

/**
 * What an outline is cut with where a job frees its pieces in a way of its own: the through cut in one heavy pass, in
 * several light ones, or by the kiss force repeated.
 *
 * @param through as it is kept, whatever its passes
 * @param kiss as it is kept, or `null`
 * @throws AppError `cannotPlan` for kiss repeats without a kiss setting
 * @example freeingValues('severalLight', { ...values, force: 200 }, null, gramScale).passes // 2
 */
export function freeingValues(
  way: Exclude<FreeingWay, 'perforated'>,
  through: SettingValues,
  kiss: SettingValues | null,
  scale: ForceScale,
): SettingValues {
  const heavyGf = gfOf(through.force, scale) * through.passes ** PASS_POWER;
  switch (way) {
    case 'oneHeavy':
      return { ...through, force: gfToForce(heavyGf, scale), passes: 1 };
    case 'severalLight': {
      const passes = Math.max(LIGHT_PASSES, through.passes);
      return { ...through, force: gfToForce(heavyGf / passes ** PASS_POWER, scale), passes };
    }
    case 'kissRepeats': {
      if (!kiss)
        throw new AppError('cannotPlan', 'there is no kiss setting to repeat', { operation: 'kiss' });
      const passes = repeatsToFree(heavyGf, gfOf(kiss.force, scale));
      return { ...through, force: kiss.force, speed: kiss.speed, passes };
    }
  }
}
