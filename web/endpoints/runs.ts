import { z } from 'zod';
import type { RunStroke } from '#core/job/run.ts';
import type { Plan } from '#core/passes/plan.ts';
import { findJob } from '#store/repositories/jobs.ts';
import { addRun, findRun, noteRun } from '#store/repositories/runs.ts';
import { defineEndpoint, idParam } from '#web/endpoints/defineEndpoint.ts';
import { sheetQuery } from '#web/endpoints/jobPlan.ts';
import { planJob } from '#web/endpoints/planJob.ts';
import { streamRun } from '#web/endpoints/streamRun.ts';
import { orderAtPanel } from '#web/links/cutterLink.ts';
import { continueRun, driveRun, stopRun } from '#web/links/driveRun.ts';
import { findCutter } from '#web/links/findCutter.ts';
import { runNoteSchema, runSchema } from '#web/schemas/run.ts';

const runParams = z.object({ id: idParam });
const done = z.object({ isDone: z.literal(true) });

export const postRun = defineEndpoint({
  method: 'POST',
  path: '/api/jobs/{id}/runs',
  summary: 'Sends a job to its machine. Watch the run under /api/runs/{id}/events.',
  params: runParams,
  query: sheetQuery,
  reply: z.object({ id: z.number() }),
  status: 201,
  handle: async ({ params, query, author }, context) => {
    const job = await findJob(context.store, params.id);
    const { station, sheet, plan, parts, settings } = await planJob(context.store, job, query.sheet - 1);
    const address = findCutter(station.machine, context.standIns);
    await orderAtPanel(address, { order: 'status' });
    const { heightMm: sheetHeightMm, widthMm: sheetWidthMm } = job.sheet;
    const run = {
      jobId: job.id,
      machineId: job.machineId,
      conditionId: job.conditionId,
      sheetWidthMm,
      sheetHeightMm,
      strokes: listStrokes(plan),
      seconds: plan.seconds,
      author,
      lot: sheet.lot,
      bladeMetres: station.blade?.travelMetres ?? null,
      settings: settings.map(({ id, revision }) => ({ settingId: id, revision: revision.revision })),
    };
    const runId = await addRun(context.store, run, new Date());
    void driveRun({ runId, station, loaded: sheet, address, parts, sheetHeightMm }, context);
    return { id: runId };
  },
});

export const getRun = defineEndpoint({
  method: 'GET',
  path: '/api/runs/{id}',
  summary: 'A run: what was sent, what was reached, how it was noted.',
  params: runParams,
  reply: runSchema,
  handle: ({ params }, { store }) => findRun(store, params.id),
});

export const getRunEvents = defineEndpoint({
  method: 'GET',
  path: '/api/runs/{id}/events',
  summary: 'Live server-sent events of a run: position, strokes reached, state.',
  params: runParams,
  reply: z.string().meta({ description: 'text/event-stream' }),
  handle: async ({ params }, { store }) => streamRun(await findRun(store, params.id)),
});

export const postStop = defineEndpoint({
  method: 'POST',
  path: '/api/runs/{id}/stop',
  summary: 'Stops a run at the machine.',
  params: runParams,
  reply: done,
  handle: async ({ params }) => {
    await stopRun(params.id);
    return { isDone: true as const };
  },
});

export const postContinue = defineEndpoint({
  method: 'POST',
  path: '/api/runs/{id}/continue',
  summary: 'Goes on after a pause, when hands are done.',
  params: runParams,
  reply: done,
  handle: ({ params }) => {
    continueRun(params.id);
    return Promise.resolve({ isDone: true as const });
  },
});

export const putNote = defineEndpoint({
  method: 'PUT',
  path: '/api/runs/{id}/note',
  summary: 'Notes how a run went; the settings it used learn from it.',
  params: runParams,
  body: runNoteSchema,
  reply: runSchema,
  handle: async ({ params, body, author }, { store }) => {
    await noteRun(store, params.id, body, author, new Date());
    return findRun(store, params.id);
  },
});

/** Strokes in the order in which they are sent, points to 0.01 mm. */
function listStrokes(plan: Plan): readonly RunStroke[] {
  const round = (value: number) => Math.round(value * 100) / 100;
  return plan.passes.flatMap((pass) =>
    pass.strokes.map((stroke) => ({
      operation: pass.role,
      isTab: stroke.isTab,
      contourId: stroke.contourId,
      repeat: stroke.repeat,
      points: stroke.points.map(({ x, y }) => ({ x: round(x), y: round(y) })),
    })),
  );
}
