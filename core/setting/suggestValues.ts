import { factsOf } from '#core/stack/families/families.ts';
import { overcutFor, usualOffsetMm } from '#core/exposure/bladeGeometry.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import { chooseExposure } from '#core/exposure/chooseExposure.ts';
import type { ValueSources } from '#core/setting/setting.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { Material, MaterialCondition } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Blade } from '#core/station/station.ts';
import { gfToForce } from '#core/units/forceScale.ts';
import { mmPerSToSpeed } from '#core/units/speedScale.ts';

/** The angle of a blade nobody named. */
const USUAL_ANGLE_DEG = 45;

/** Values to start from, everything but the force settled by stack, blade and habit. */
export interface Suggestion {
  readonly values: SettingValues;
  readonly sources: ValueSources;
  readonly exposureReason: string;
}

/**
 * Suggests a setting around a force.
 *
 * @param forceGf the force that the model or the test cuts point to, in nominal gf
 * @throws AppError `badInput` when the stack cannot be
 * @example suggestValues(material, station.loaded.condition, machine, blade, 'kiss', 70).values.force // 70
 */
export function suggestValues(
  material: Material,
  condition: MaterialCondition,
  machine: Machine,
  blade: Blade | null,
  operation: DepthOperation,
  forceGf: number,
): Suggestion {
  const { exposureMm, reason } = chooseExposure(condition.stack, machine.depthScale);
  const angleDeg = blade?.angleDeg ?? USUAL_ANGLE_DEG;
  const offsetMm = blade?.offsetMm ?? usualOffsetMm(angleDeg);
  const { toLinerUm, totalUm } = measureStack(condition.stack);
  const facts = factsOf(material.family);
  const depthMm = (operation === 'kiss' ? toLinerUm : totalUm) / 1000;
  return {
    values: {
      force: gfToForce(forceGf, machine.forceScale),
      exposureMm,
      speed: mmPerSToSpeed(facts.startSpeedMmPerS, machine.speedScale),
      passes: operation === 'through' ? facts.throughPasses : 1,
      offsetMm,
      overcutMm: overcutFor(depthMm, angleDeg, offsetMm),
    },
    sources: {
      force: 'model',
      exposureMm: 'stack',
      speed: 'stack',
      passes: 'stack',
      offsetMm: blade ? 'blade' : 'machine',
      overcutMm: blade ? 'blade' : 'machine',
    },
    exposureReason: reason,
  };
}
