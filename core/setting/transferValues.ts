import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Machine } from '#core/station/machine.ts';
import { snapExposureMm } from '#core/units/depthScale.ts';
import { gfOf, gfToForce, type ForceScale } from '#core/units/forceScale.ts';
import { mmPerSToSpeed, speedToMmPerS } from '#core/units/speedScale.ts';
import { BELIEFS } from '#core/threshold/thresholdPriors.ts';

/** Values of one machine said on the scales of another, with how sure that is. */
export interface Transfer {
  readonly values: SettingValues;
  readonly forceGf: number;
  /** Whether both force scales were measured. */
  readonly isCalibrated: boolean;
  /** The range that 9 of 10 such transfers end in, on the other machine's scale. */
  readonly lowForce: number;
  readonly highForce: number;
}

/** What is left between two measured scales: tip, holder and carriage. In ln force, one standard deviation. */
const MEASURED_SD = 0.04;

/**
 * Carries values from one machine to another: force through grams, speed through mm/s, exposure through mm, each on the
 * steps of the other machine and inside its limits. Without measured scales the machines may differ as much as the
 * threshold model believes machines do.
 *
 * @example transferValues(values, machine, { ...machine, forceScale: levelScale }).values.force // 13
 */
export function transferValues(values: SettingValues, from: Machine, to: Machine): Transfer {
  const forceGf = gfOf(values.force, from.forceScale);
  const isCalibrated = isMeasured(from.forceScale) && isMeasured(to.forceScale);
  const sd = isCalibrated ? MEASURED_SD : BELIEFS.machine.sd * Math.SQRT2;
  const at = (factor: number) => gfToForce(forceGf * factor, to.forceScale);
  return {
    values: {
      ...values,
      force: at(1),
      ...(values.tabForce === undefined
        ? {}
        : { tabForce: gfToForce(gfOf(values.tabForce, from.forceScale), to.forceScale) }),
      speed: mmPerSToSpeed(speedToMmPerS(values.speed, from.speedScale), to.speedScale),
      exposureMm:
        values.exposureMm > 0 ? snapExposureMm(values.exposureMm, to.depthScale) : values.exposureMm,
    },
    forceGf,
    isCalibrated,
    lowForce: at(Math.exp(-1.645 * sd)),
    highForce: at(Math.exp(1.645 * sd)),
  };
}

/** A gram-force scale counts as measured: its maker says so; levels only by readings. */
function isMeasured({ kind, measured }: ForceScale): boolean {
  return measured !== undefined || kind === 'gramForce';
}
