import { ROUNDING } from '#core/units/rounding.ts';
import type { Action, ChangedNumber } from '#core/faults/faultActions.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { depthStepMm, type DepthScale } from '#core/units/depthScale.ts';
import { forceUnit, sayForce, snapForce, type ForceScale } from '#core/units/forceScale.ts';
import { snapSpeed, type SpeedScale } from '#core/units/speedScale.ts';

/** A number of a setting to be changed, from what to what. */
export interface NumberChange {
  readonly number: ChangedNumber;
  readonly from: number;
  readonly to: number;
  /** "62 to 66 gf". */
  readonly words: string;
}

/** The scales of a machine. */
export interface Scales {
  readonly forceScale: ForceScale;
  readonly speedScale: SpeedScale;
  readonly depthScale: DepthScale;
}

/** Steps in which operators change a force (T3): 5 gf; 1 on short level scales, 5 on long ones. Common practice, no source. */
const GRAM_STEP = 5;
const LONG_SCALE = 60;

/**
 * The number an action changes, or `null` when it changes none, or there is no room on the scale.
 *
 * @param target the force in the middle of the window where it is known; a step never goes beyond it
 * @param settle a force as it will stand once it is kept
 * @example proposeNumber('moreForce', { ...values, force: 62 }, machine, 66)?.words // '65 gf instead of 62'
 */
export function proposeNumber(
  action: Action,
  values: SettingValues,
  { forceScale, speedScale, depthScale }: Scales,
  target: number | null,
  settle: (force: number) => number = (force) => force,
): NumberChange | null {
  switch (action) {
    case 'moreForce':
    case 'lessForce': {
      const sign = action === 'moreForce' ? 1 : -1;
      const usual = forceScale.kind === 'gramForce' || forceScale.max > LONG_SCALE ? GRAM_STEP : 1;
      const step = Math.max(forceScale.step, Math.round(usual / forceScale.step) * forceScale.step);
      const aimed = values.force + sign * step;
      const isBetween = target !== null && (target - values.force) * sign > 0 && (aimed - target) * sign > 0;
      const to = settle(snapForce(isBetween ? target : aimed, forceScale));
      return change('force', values.force, to, forceUnit(forceScale));
    }
    case 'onePassMore':
      return change('passes', values.passes, values.passes + 1, 'passes');
    case 'slower':
      return change('speed', values.speed, snapSpeed(values.speed / 2, speedScale), speedScale.unit);
    case 'lessExposure':
    case 'moreExposure': {
      const step = depthStepMm(depthScale) * (action === 'moreExposure' ? 1 : -1);
      const to = Math.min(depthScale.maxMm, Math.max(Math.abs(step), values.exposureMm + step));
      return change('exposureMm', values.exposureMm, Number(to.toFixed(4)), 'mm');
    }
    case 'longerTabs':
    case 'shorterTabs': {
      if (values.tabLengthMm === undefined) return null;
      const to = values.tabLengthMm * (action === 'longerTabs' ? 1.25 : 0.8);
      return change('tabLengthMm', values.tabLengthMm, Math.round(to * 20) / 20, 'mm');
    }
    default:
      return null;
  }
}

function change(number: ChangedNumber, from: number, to: number, unit: string): NumberChange | null {
  if (Math.abs(to - from) < ROUNDING) return null;
  const plain = (value: number) => String(Number(value.toFixed(3)));
  return { number, from, to, words: `${sayForce(plain(to), unit)} instead of ${plain(from)}` };
}
