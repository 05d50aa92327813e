import { carriedOf, panelCutsOf } from '#core/protocol/findLanguage.ts';
import { planMachineOf } from '#core/protocol/planMachineOf.ts';
import type { Job } from '#core/job/job.ts';
import type { Plan } from '#core/passes/plan.ts';
import { splitParts, type Part } from '#core/passes/splitParts.ts';
import type { FileOptions } from '#core/program/cutProgram.ts';
import { fileOptionsOf } from '#core/protocol/machineFile.ts';
import { hasLiner } from '#core/stack/layer.ts';
import { IDENTITY } from '#core/geometry/affine.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { readJobSettings, type JobSettings } from '#store/repositories/jobs/jobSettings.ts';
import { findRegistration, type Registration } from '#store/repositories/bench/registration.ts';
import type { KeptSetting } from '#store/repositories/book/settings.ts';
import type { Wait } from '#core/prep/waits.ts';
import { readWaitRoute } from '#web/endpoints/workshop/waits.ts';
import { showArt } from '#web/endpoints/jobs/pictures/showArt.ts';
import { runTask } from '#web/workers/pool.ts';
import type { SheetFacts } from '#web/workers/tasks/drawingTasks.ts';

/** A job worked out for its machine, one sheet of it. */
export interface PlannedJob extends JobSettings {
  readonly facts: SheetFacts;
  readonly plan: Plan;
  readonly parts: readonly Part[];
  /** The kept settings that the plan uses. */
  readonly settings: readonly KeptSetting[];
  /** How print and cut meet on its machine. */
  readonly registration: Registration;
  /** All that its sheet waits for, in order. */
  readonly waits: readonly Wait[];
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
  const settings = await readJobSettings(store, job);
  const { machine } = settings.station;
  const { plan, facts } = await runTask('planSheet', {
    shown: await showArt(store, job),
    job,
    machine,
    family: settings.sheet.material.family,
    checks: {
      isLayered: hasLiner(settings.sheet.condition.stack),
      machineKind: machine.kind,
      operations: machine.operations,
      offsetMm: settings.station.blade?.offsetMm ?? 0,
      spacingMm: job.layout.spacingMm,
    },
    sheetIndex,
    order: {
      settings: settings.values,
      machine: planMachineOf(machine),
      sheetHeightMm: job.sheet.heightMm,
      choices: job.passes,
      kicks: KICKS,
    },
  });
  const [registration, waits] = await Promise.all([
    findRegistration(store, job.machineId),
    readWaitRoute(store, settings.sheet, facts.isPrinted),
  ]);
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
    facts,
    plan,
    registration,
    waits,
    file,
    parts: splitParts(plan.passes, carriedOf(machine), panelCutsOf(machine)),
    settings: settings.kept.filter(({ key }) => used.has(key.operation)),
    assumed: used.has('perforated') ? settings.assumed : [],
  };
}
