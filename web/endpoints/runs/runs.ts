import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { printedMarks } from '#core/sheet/marks/marks.ts';
import { listRunStrokes } from '#core/program/listRunStrokes.ts';
import { passesDone } from '#core/program/passesDone.ts';
import { makeProgram } from '#core/program/runProgram.ts';
import { RUN_STATES } from '#core/run/run.ts';
import { CUT_ROLES } from '#core/drawing/roles/lineRoles.ts';
import { addRunGrade, listRunGrades } from '#store/repositories/runs/runGrades.ts';
import { findJob } from '#store/repositories/jobs/jobs.ts';
import { listRunEvents } from '#store/repositories/runs/runEvents.ts';
import { findRun, startRun } from '#store/repositories/runs/runs.ts';
import { factsOfSheet, toolsOf } from '#web/endpoints/runs/factsOfSheet.ts';
import { noteAfterRun } from '#web/endpoints/runs/noteAfterRun.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { sheetQuery } from '#web/endpoints/jobs/jobPlan.ts';
import { requireConfirmed } from '#web/endpoints/jobs/jobPlan.ts';
import { planJob } from '#web/endpoints/jobs/planJob.ts';
import { streamRun } from '#web/endpoints/runs/streamRun.ts';
import { requestRefit } from '#web/workers/refitKnowledge.ts';
import { isStillIn } from '#server/people/isStillIn.ts';
import { followElsewhere } from '#server/several/followElsewhere.ts';
import { driveRun } from '#server/runs/runLoop.ts';
import { readRun } from '#server/runs/readRun.ts';
import { continueRun, pauseRun, repeatOperation, stopRun, unloadRun } from '#server/runs/runOrders.ts';
import { findLink } from '#server/links/findLink.ts';
import { pointSchema } from '#web/schemas/plan.ts';
import {
  requestKeySchema,
  runGradeSchema,
  runHistorySchema,
  runNoteSchema,
  runSchema,
} from '#web/schemas/run.ts';
import { keepOtherEnd } from '#web/endpoints/runs/keepOtherEnd.ts';
import { gradeSchema } from '#web/schemas/setting.ts';

const runParams = z.object({ id: idParam });
const done = z.object({ isDone: z.literal(true) });

export const postRun = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'own',
  path: '/api/jobs/{id}/runs',
  summary: 'Sends a job to its machine. Watch the run under /api/runs/{id}/events.',
  params: runParams,
  query: sheetQuery,
  body: z.object({
    requestKey: requestKeySchema,
    accepted: z.array(z.string().max(60)).max(40).default([]).meta({
      description: 'ids of what stops it on the checklist of its plan, and may go nevertheless',
    }),
    version: z.number().int().positive().optional().meta({
      description: 'the version of the job that its sender saw; another one is not cut',
    }),
  }),
  reply: z.object({ id: z.number() }),
  status: 201,
  handle: async ({ params, query, body, author }, context) => {
    const job = await findJob(context.store, params.id);
    if (body.version !== undefined && body.version !== job.version)
      throw new AppError(
        'conflict',
        'This job was changed since you looked at it. Nothing was sent; look at it as it is now, then send it.',
      );
    const planned = await planJob(context.store, job, query.sheet - 1);
    const { station, sheet, plan, parts, settings, values, file } = planned;
    await requireConfirmed(context.store, job, planned, body.accepted);
    await findLink(station.machine, context).hands?.order({ order: 'status' });
    const { heightMm: sheetHeightMm, widthMm: sheetWidthMm } = job.sheet;
    const run = {
      requestKey: body.requestKey,
      sheetNumber: query.sheet,
      program: makeProgram(parts, {
        ...factsOfSheet(station, sheet, new Date()),
        file,
        sheetHeightMm,
        isPrinted: job.print.hasMarks,
        ...(job.print.hasMarks ? { marks: printedMarks(station.machine.marks, job.sheet) } : {}),
      }),
      ...toolsOf(station),
      jobId: job.id,
      machineId: job.machineId,
      conditionId: job.conditionId,
      sheetWidthMm,
      sheetHeightMm,
      strokes: listRunStrokes(plan),
      seconds: plan.seconds,
      author,
      lot: sheet.lot,
      colour: sheet.colour,
      settings: settings.map(({ id, key, revision }) => ({
        settingId: id,
        revision: revision.revision,
        cutValues: values[key.operation],
      })),
    };
    return context.once(async (store) => {
      const { id, isNew } = await startRun(store, run, new Date());
      if (isNew) context.afterwards((server) => void driveRun(id, server));
      return { id };
    });
  },
});

export const getRun = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/runs/{id}',
  summary: 'A run: what was sent, what was reached, how it was noted.',
  params: runParams,
  reply: runSchema,
  handle: ({ params }, { store }) => readRun(store, params.id),
});

export const getRunEvents = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/runs/{id}/events',
  summary: 'Live server-sent events of a run: position, strokes reached, state.',
  params: runParams,
  reply: z.string().meta({ description: 'text/event-stream' }),
  handle: ({ params, who }, context) =>
    streamRun(
      params.id,
      () => findRun(context.store, params.id),
      () => followElsewhere(context, params.id),
      () => isStillIn(context.store, who),
    ),
});

export const postStop = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'harmless',
  path: '/api/runs/{id}/stop',
  summary:
    'Stops a run. From this moment nothing more is sent; the answer comes when it stands still: `stopped`, or `held` where the machine must be stopped at its own panel.',
  params: runParams,
  reply: done.extend({ state: z.enum(RUN_STATES) }),
  handle: async ({ params, author }, context) => ({
    isDone: true as const,
    state: await stopRun(params.id, context, author),
  }),
});

export const postContinue = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'outside',
  path: '/api/runs/{id}/continue',
  summary:
    'Goes on when hands are done, or after somebody looked at a sheet that was held: the stroke that nobody knows of is cut again or left.',
  params: runParams,
  body: z.object({ openStroke: z.enum(['again', 'leave']).default('again') }),
  reply: done,
  handle: async ({ params, body, author }, context) => {
    await continueRun(params.id, body.openStroke, context, author);
    return { isDone: true as const };
  },
});

export const postPause = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'outside',
  path: '/api/runs/{id}/pause',
  summary: 'Holds the blade, or lets it go on, where the machine can be told.',
  params: runParams,
  body: z.object({ isPaused: z.boolean() }),
  reply: done,
  handle: async ({ params, body, author }, context) => {
    await pauseRun(params.id, body.isPaused, context, author);
    return { isDone: true as const };
  },
});

export const postRepeat = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'outside',
  path: '/api/runs/{id}/repeat',
  summary: 'Cuts the path of an operation once more while the sheet has not moved; no number is raised.',
  params: runParams,
  body: z.object({ operation: z.enum(CUT_ROLES) }),
  reply: done,
  handle: async ({ params, body, author }, context) => {
    await repeatOperation(params.id, body.operation, context, author);
    return { isDone: true as const };
  },
});

export const postUnload = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'outside',
  path: '/api/runs/{id}/unload',
  summary:
    'The sheet is taken out: the run is done. Of a sheet of which the job takes one end, the other goes to the shelf.',
  params: runParams,
  reply: done,
  handle: async ({ params, author }, context) => {
    await unloadRun(params.id, context, author);
    context.afterwards((server) => {
      void keepOtherEnd(server.store, params.id, author, new Date()).catch((error: unknown) =>
        server.log.warn({ error, runId: params.id }, 'the other end of a sheet was not kept'),
      );
    });
    return { isDone: true as const };
  },
});

export const getRunHistory = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/runs/{id}/history',
  summary: 'What happened to a run, oldest first: every change of its state, with who did it.',
  params: runParams,
  reply: z.array(runHistorySchema).readonly(),
  handle: async ({ params }, { store }) => {
    await findRun(store, params.id);
    return listRunEvents(store, params.id);
  },
});

export const postGrade = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/runs/{id}/grades',
  summary: 'A depth grade given at the sheet, of an operation or of a spot on it.',
  params: runParams,
  body: z.object({
    operation: z.enum(CUT_ROLES),
    grade: gradeSchema,
    spot: pointSchema.nullable().default(null),
  }),
  reply: z.array(runGradeSchema).readonly(),
  status: 201,
  handle: async ({ params, body, author }, context) => {
    const { store } = context;
    const { strokes } = await findRun(store, params.id);
    const grade = { ...body, passesDone: passesDone(strokes, body.operation) };
    await addRunGrade(store, params.id, grade, author, new Date());
    context.afterwards(requestRefit);
    return listRunGrades(store, params.id);
  },
});

export const getGrades = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/runs/{id}/grades',
  summary: 'The grades given at the sheet of a run.',
  params: runParams,
  reply: z.array(runGradeSchema).readonly(),
  handle: ({ params }, { store }) => listRunGrades(store, params.id),
});

export const putNote = defineEndpoint({
  method: 'PUT',
  role: 'operator',
  path: '/api/runs/{id}/note',
  summary: 'Notes how a run went; the settings it used learn from it.',
  params: runParams,
  body: runNoteSchema,
  reply: runSchema,
  handle: async ({ params, body, author }, context) => {
    await noteAfterRun(context.store, params.id, body, author, new Date());
    context.afterwards(requestRefit);
    return findRun(context.store, params.id);
  },
});
