import { correctValues, sheetFactor } from '#core/setting/correctForce.ts';
import type { SettingOperation } from '#core/setting/setting.ts';
import { readSvg } from '#core/drawing/readSvg.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Job } from '#core/job/job.ts';
import { planPasses, type Plan } from '#core/passes/planPasses.ts';
import { splitParts, type Part } from '#core/passes/splitParts.ts';
import { placeDrawing } from '#core/sheet/placeDrawing.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findMaterialByCondition } from '#store/repositories/materials.ts';
import { findSetting, type KeptSetting } from '#store/repositories/settings.ts';
import { findStation } from '#store/repositories/stations.ts';
import { settingKey } from '#web/endpoints/settingKey.ts';

/** A job worked out for its machine. */
export interface PlannedJob {
  readonly station: Station;
  readonly sheet: LoadedSheet;
  readonly plan: Plan;
  readonly parts: readonly Part[];
  readonly settings: readonly KeptSetting[];
}

/**
 * Plans a job with the kept settings of its material on its machine.
 *
 * @throws AppError `cannotPlan` when lines lie outside the sheet, or a role or setting is missing
 */
export async function planJob(store: Store, job: Job): Promise<PlannedJob> {
  const station = await findStation(store, job.machineId);
  const { machine } = station;
  const found = await findMaterialByCondition(store, job.conditionId);
  const [kiss, through] = await Promise.all([
    findSetting(store, settingKey(station, job.conditionId, 'kiss')),
    findSetting(store, settingKey(station, job.conditionId, 'through')),
  ]);
  const placed = placeDrawing(readSvg(job.svg), job.sheet, job.placement);
  if (!placed.isInside) {
    const most = Math.max(placed.over.left, placed.over.top, placed.over.right, placed.over.bottom);
    throw new AppError(
      'cannotPlan',
      `the drawing reaches ${most.toFixed(1)} mm over the usable area of the sheet`,
    );
  }
  const isLoaded = station.loaded?.condition.id === job.conditionId;
  const lot = isLoaded ? (station.loaded?.lot ?? '') : '';
  const colour = isLoaded ? (station.loaded?.colour ?? '') : '';
  const factor = sheetFactor(found.material, colour, lot);
  const valuesOf = (setting: KeptSetting) =>
    correctValues(setting.revision.values, machine.forceScale, factor);
  const values = {
    ...(kiss ? { kiss: valuesOf(kiss) } : {}),
    ...(through ? { through: valuesOf(through) } : {}),
  };
  const plan = planPasses(placed.contours, job.roles, values, machine);
  const used: readonly SettingOperation[] = plan.passes.map((pass) => pass.operation);
  return {
    station,
    sheet: { ...found, lot, colour },
    plan,
    parts: splitParts(plan.passes, machine.numbersOwner),
    settings: [kiss, through]
      .filter((setting) => setting !== null)
      .filter(({ key }) => used.includes(key.operation)),
  };
}
