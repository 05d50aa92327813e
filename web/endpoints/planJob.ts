import { carriedOf } from '#core/protocol/findLanguage.ts';
import { planMachineOf } from '#core/protocol/planMachineOf.ts';
import { AppError } from '#core/errors/appError.ts';
import { hasPrint } from '#core/job/hasPrint.ts';
import type { Job } from '#core/job/job.ts';
import { layOutJob, type LaidJob } from '#core/job/layOutJob.ts';
import type { Plan } from '#core/passes/plan.ts';
import { splitParts, type Part } from '#core/passes/splitParts.ts';
import type { FileOptions } from '#core/program/cutProgram.ts';
import { fileOptionsOf } from '#core/protocol/machineFile.ts';
import { IDENTITY } from '#core/geometry/affine.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { loadJobSettings, type JobSettings } from '#store/repositories/jobSettings.ts';
import { findRegistration, type Registration } from '#store/repositories/registration.ts';
import type { KeptSetting } from '#store/repositories/settings.ts';
import { planInThread } from '#web/workers/planInThread.ts';
import { openDrawing } from '#web/endpoints/openDrawing.ts';

/** A job worked out for its machine, one sheet of it. */
export interface PlannedJob extends JobSettings {
  readonly laid: LaidJob;
  readonly plan: Plan;
  readonly parts: readonly Part[];
  /** The kept settings that the plan uses. */
  readonly settings: readonly KeptSetting[];
  /** How print and cut meet on its machine. */
  readonly registration: Registration;
  /** How its machine file is written: where the sheet lies, what is corrected. */
  readonly file: FileOptions;
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
  const plan = await planInThread({
    lines: placed.lines,
    given: job,
    settings: settings.values,
    machine: planMachineOf(machine),
    sheetHeightMm: job.sheet.heightMm,
    choices: job.passes,
    kicks: KICKS,
    hasPrint: hasPrint(laid.drawing, job),
  });
  const registration = await findRegistration(store, job.machineId);
  const { matLeftMm = 0, matBottomMm = 0 } = job.sheet;
  const isOnMat = machine.kind === 'matFed';
  const file = fileOptionsOf(machine, {
    leftMm: isOnMat ? matLeftMm : 0,
    bottomMm: isOnMat ? matBottomMm : 0,
    // A sheet without marks was not printed here: there is nothing to meet.
    correction: job.print.hasMarks ? registration.correction : IDENTITY,
  });
  const used = new Set(plan.passes.map((pass) => pass.operation));
  return {
    ...settings,
    laid,
    plan,
    registration,
    file,
    parts: splitParts(plan.passes, carriedOf(machine)),
    settings: settings.kept.filter(({ key }) => used.has(key.operation)),
    assumed: used.has('perforated') ? settings.assumed : [],
  };
}
