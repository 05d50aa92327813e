import { overcutFor, usualOffsetMm } from '#core/exposure/bladeGeometry.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import { chooseExposure } from '#core/exposure/chooseExposure.ts';
import type { SettingValues, ValueSources } from '#core/setting/setting.ts';
import type { DialInOperation } from '#core/stack/depthGrade.ts';
import type { Material, MaterialCondition } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Blade } from '#core/station/station.ts';
import { gfToForce } from '#core/units/forceScale.ts';
import { mmPerSToSpeed } from '#core/units/speedScale.ts';

/** Speeds to start from, mm/s: slower where the sheet is stiff. Common practice, no source. */
const START_SPEED_MM_PER_S: Readonly<Record<Material['family'], number>> = {
  stickerPaper: 200,
  printableVinyl: 200,
  plainVinyl: 200,
  transferFilm: 150,
  cardstock: 80,
  stencilSheet: 50,
  foldingCarton: 50,
  other: 100,
};
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
 */
export function suggestValues(
  material: Material,
  condition: MaterialCondition,
  machine: Machine,
  blade: Blade | null,
  operation: DialInOperation,
  forceGf: number,
): Suggestion {
  const { exposureMm, reason } = chooseExposure(condition.stack, operation, machine.depthScale);
  const angleDeg = blade?.angleDeg ?? USUAL_ANGLE_DEG;
  const offsetMm = blade?.offsetMm ?? usualOffsetMm(angleDeg);
  const { toLinerUm, totalUm } = measureStack(condition.stack);
  const depthMm = (operation === 'kiss' ? toLinerUm : totalUm) / 1000;
  return {
    values: {
      force: gfToForce(forceGf, machine.forceScale),
      exposureMm,
      speed: mmPerSToSpeed(START_SPEED_MM_PER_S[material.family], machine.speedScale),
      passes: material.family === 'cardstock' && operation === 'through' ? 2 : 1,
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
