import { AppError } from '#core/errors/appError.ts';
import type { Job } from '#core/job/job.ts';
import { layOutJob, type LaidJob } from '#core/job/layOutJob.ts';
import type { Plan } from '#core/passes/plan.ts';
import { planPasses } from '#core/passes/planPasses.ts';
import { splitParts, type Part } from '#core/passes/splitParts.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { loadJobSettings, type JobSettings } from '#store/repositories/jobSettings.ts';
import type { KeptSetting } from '#store/repositories/settings.ts';
import { openDrawing } from '#web/endpoints/openDrawing.ts';

/** A job worked out for its machine, one sheet of it. */
export interface PlannedJob extends JobSettings {
  readonly laid: LaidJob;
  readonly plan: Plan;
  readonly parts: readonly Part[];
  /** The kept settings that the plan uses. */
  readonly settings: readonly KeptSetting[];
}

/** A few hundred kicks shorten the travel by hundredths and take a moment. */
const KICKS = 120;

/**
 * Plans a job with the kept settings of its material on its machine.
 *
 * @param sheetIndex which of its sheets, from 0
 * @throws AppError `cannotPlan` when lines lie outside the sheet, or a role or setting is missing
 */
export async function planJob(store: Store, job: Job, sheetIndex = 0): Promise<PlannedJob> {
  const settings = await loadJobSettings(store, job);
  const { machine } = settings.station;
  const laid = layOutJob(job, machine, openDrawing);
  const placed = laid.sheets[sheetIndex];
  if (!placed || placed.lines.length === 0) {
    throw new AppError('cannotPlan', 'nothing lies on the sheet yet: lay the pieces out first');
  }
  if (!placed.isInside) {
    const most = Math.max(placed.over.left, placed.over.top, placed.over.right, placed.over.bottom);
    throw new AppError(
      'cannotPlan',
      `the drawing reaches ${most.toFixed(1)} mm over the usable area of the sheet`,
    );
  }
  const plan = planPasses({
    lines: placed.lines,
    given: job,
    settings: settings.values,
    machine,
    sheetHeightMm: job.sheet.heightMm,
    choices: job.passes,
    kicks: KICKS,
  });
  const used = new Set(plan.passes.map((pass) => pass.operation));
  return {
    ...settings,
    laid,
    plan,
    parts: splitParts(plan.passes, machine.numbersOwner),
    settings: settings.kept.filter(({ key }) => used.has(key.operation)),
    assumed: used.has('perforated') ? settings.assumed : [],
  };
}
