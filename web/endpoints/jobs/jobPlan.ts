import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { composeRunSheet, type RunSheet } from '#core/job/composeRunSheet.ts';
import { composeChecklist, type CheckItem } from '#core/job/composeChecklist.ts';
import type { Job } from '#core/job/job.ts';
import { listStops } from '#core/job/listStops.ts';
import type { LoadedSheet } from '#core/station/station.ts';
import { assessPlan } from '#core/passes/assessPlan.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listStandingCases } from '#store/repositories/log/faultCases.ts';
import { findOpenAlarm } from '#store/repositories/log/drift.ts';
import { listTimers } from '#store/repositories/jobs/waits.ts';
import { findJob } from '#store/repositories/jobs/jobs.ts';
import { listJudgedPieces } from '#store/repositories/dialIn/judgedPieces.ts';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';
import { tabPieces } from '#web/endpoints/dialIn/answerJudged.ts';
import { jobParams } from '#web/endpoints/jobs/jobs.ts';
import { planJob, type PlannedJob } from '#web/endpoints/jobs/planJob.ts';
import { planSchema, type PlanReply } from '#web/schemas/plan.ts';

/** Which sheet of a job, from 1. */
export const sheetQuery = z.object({ sheet: z.coerce.number().int().min(1).default(1) });
/** For papers to read: in which units, where the browser has not said. */
export const paperUnits = z.enum(['metric', 'inch']).optional();

export const getPlan = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/plan',
  summary:
    'The ordered passes of a sheet of a job with time, travel, holding and risks, or why it cannot run yet.',
  params: jobParams,
  query: sheetQuery,
  reply: planSchema,
  handle: async ({ params, query }, { store }) => {
    const job = await findJob(store, params.id);
    try {
      return await describePlan(store, job, await planJob(store, job, query.sheet - 1), query.sheet);
    } catch (error) {
      if (!(error instanceof AppError) || error.code !== 'cannotPlan') throw error;
      return { ...NO_PLAN, problem: error.message };
    }
  },
});

const NO_PLAN: PlanReply = {
  passes: [],
  cutMm: 0,
  travelMm: 0,
  seconds: 0,
  sheets: 0,
  parts: 0,
  violations: [],
  printAfter: null,
  assumed: [],
  freeing: null,
  holding: null,
  risks: [],
  runSheet: null,
  checklist: [],
  problem: null,
};

/** A plan with what it is judged at. */
export async function describePlan(
  store: Store,
  job: Job,
  planned: PlannedJob,
  sheetNumber: number,
): Promise<PlanReply> {
  const { plan, parts, facts, station, sheet, values, assumed } = planned;
  const passes = plan.passes.map(({ strokes, ...pass }) => ({
    ...pass,
    strokes: strokes.length,
    route: strokes.flatMap(({ points, isTab, ownTabs }) => ownTabs?.stretches ?? [{ points, isTab }]),
  }));
  const [timers, alarm, standing] = await Promise.all([
    listTimers(store),
    findOpenAlarm(store, job.machineId),
    listStandingCases(store, job.machineId),
  ]);
  const judged = await listJudgedPieces(store, job.conditionId, job.machineId, 'tabs');
  const outlook = assessPlan({
    plan,
    station,
    sheet,
    values,
    judgedTabs: tabPieces(judged),
    bleedMm: job.print.bleedMm,
    spacingMm: job.layout.spacingMm,
    registration: planned.registration.error,
    edge: facts.edge,
    isFinestTooFine: facts.isFinestTooFine,
    markTroubles: job.print.hasMarks ? facts.markTroubles : null,
    now: new Date(),
  });
  return {
    ...plan,
    ...outlook,
    passes,
    sheets: facts.sheetCount,
    parts: parts.length,
    assumed,
    runSheet: runSheetOf(job, planned, sheetNumber),
    checklist: composeChecklist({
      station,
      sheet,
      passes: plan.passes,
      isPrinted: facts.isPrinted,
      hasMarks: job.print.hasMarks,
      sheetHeightMm: job.sheet.heightMm,
      isFinestTooFine: facts.isFinestTooFine,
      waits: waitsOf(timers, job, sheet),
      stops: stopsOf(job, planned, timers),
      standing,
      drift: alarm?.reason ?? null,
      now: new Date(),
    }),
    problem: null,
  };
}

type Timers = Awaited<ReturnType<typeof listTimers>>;

function waitsOf(timers: Timers, job: Job, { material }: LoadedSheet): Timers {
  // What a timer of another job waits for is that job's sheet.
  return timers.filter(({ jobId, materialId }) =>
    jobId === null ? materialId === material.id : jobId === job.id,
  );
}

function stopsOf(job: Job, { station, sheet, facts }: PlannedJob, timers: Timers): readonly CheckItem[] {
  return listStops({ ...facts, station, sheet, waits: waitsOf(timers, job, sheet), now: new Date() });
}

/**
 * Refuses to send a job while something stops it that nobody has said may go nevertheless.
 *
 * @param accepted ids of what may go nevertheless
 * @throws AppError `notConfirmed` with everything that stops it
 */
export async function requireConfirmed(
  store: Store,
  job: Job,
  planned: PlannedJob,
  accepted: readonly string[],
): Promise<void> {
  const stops = stopsOf(job, planned, await listTimers(store)).filter(({ state }) => state === 'stop');
  const left = stops.filter(({ id = '' }) => !accepted.includes(id));
  const [first] = left;
  if (!first) return;
  const more = left.length > 1 ? ` And ${left.length - 1} more.` : '';
  throw new AppError('notConfirmed', `${first.words}: ${first.reason}.${more}`, { stops: left });
}

/** What to load, set and do for one sheet of a planned job. */
export function runSheetOf(job: Job, planned: PlannedJob, sheetNumber: number): RunSheet {
  return composeRunSheet({
    job,
    ...planned,
    sheetNumber,
    sheetCount: planned.facts.sheetCount,
    hasArt: planned.facts.isPrinted,
    printAfter: planned.plan.printAfter,
  });
}
