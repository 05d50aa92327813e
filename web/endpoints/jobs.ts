import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { guessRoles } from '#core/drawing/lineRoles.ts';
import { readSvg } from '#core/drawing/readSvg.ts';
import { hpglOptionsOf, writeHpgl } from '#core/protocol/writeHpgl.ts';
import { chooseSheet } from '#core/sheet/chooseSheet.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import { nameCondition } from '#core/stack/material.ts';
import { addJob, changeJob, findJob, listJobs } from '#store/repositories/jobs.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listMaterials } from '#store/repositories/materials.ts';
import { listMachines } from '#store/repositories/machines.ts';
import { findStation } from '#store/repositories/stations.ts';
import { defineEndpoint, idParam } from '#web/endpoints/defineEndpoint.ts';
import { planJob, type PlannedJob } from '#web/endpoints/planJob.ts';
import {
  jobChangeSchema,
  jobSchema,
  jobSummarySchema,
  newJobSchema,
  planSchema,
  type JobSummaryReply,
  type PlanReply,
} from '#web/schemas/job.ts';

const jobParams = z.object({ id: idParam });

export const getJobs = defineEndpoint({
  method: 'GET',
  path: '/api/jobs',
  summary: 'All jobs, the last changed first.',
  reply: z.array(jobSummarySchema).readonly(),
  handle: (_, { store }) => listJobSummaries(store),
});

/** All jobs with the words to list them. */
export async function listJobSummaries(store: Store): Promise<readonly JobSummaryReply[]> {
  const [jobs, materials, machines] = await Promise.all([
    listJobs(store),
    listMaterials(store, true),
    listMachines(store, true),
  ]);
  return jobs.map(({ conditionId, machineId, ...job }) => {
    const material = materials.find((one) => one.conditions.some(({ id }) => id === conditionId));
    const condition = material?.conditions.find(({ id }) => id === conditionId);
    const machine = machines.find(({ id }) => id === machineId);
    const name = material && condition ? nameCondition(material.name, condition.kind) : 'unknown material';
    return { ...job, material: name, machine: machine?.name ?? 'unknown machine' };
  });
}

export const postJob = defineEndpoint({
  method: 'POST',
  path: '/api/jobs',
  summary: 'Makes a job from an SVG drawing, for what is loaded at a station.',
  body: newJobSchema,
  maxBytes: 6_000_000,
  reply: z.object({ id: z.number() }),
  status: 201,
  handle: async ({ body }, { store }) => {
    const { loaded, machine } = await findStation(store, body.machineId);
    if (!loaded)
      throw new AppError(
        'badInput',
        'load a sheet at this station first, so that the job knows its material',
      );
    const drawing = readSvg(body.svg);
    const { isLayered } = measureStack(loaded.condition.stack);
    const job = {
      name: body.name,
      svg: body.svg,
      roles: guessRoles(drawing, isLayered),
      areRolesGuessed: true,
      ...chooseSheet(drawing, machine),
      conditionId: loaded.condition.id,
      machineId: machine.id,
    };
    return { id: await addJob(store, job, new Date()) };
  },
});

export const getJob = defineEndpoint({
  method: 'GET',
  path: '/api/jobs/{id}',
  summary: 'A job with its drawing, roles, sheet and placement.',
  params: jobParams,
  reply: jobSchema,
  handle: ({ params }, { store }) => findJob(store, params.id),
});

export const patchJob = defineEndpoint({
  method: 'PATCH',
  path: '/api/jobs/{id}',
  summary: 'Changes a job, unless somebody else changed it meanwhile.',
  params: jobParams,
  body: jobChangeSchema,
  maxBytes: 1_000_000,
  reply: jobSchema,
  handle: async ({ params, body }, { store }) => {
    const { version, ...change } = body;
    await changeJob(store, params.id, change, version, new Date());
    return findJob(store, params.id);
  },
});

export const getPlan = defineEndpoint({
  method: 'GET',
  path: '/api/jobs/{id}/plan',
  summary: 'The ordered passes of a job with time and travel, or why it cannot run yet.',
  params: jobParams,
  reply: planSchema,
  handle: async ({ params }, { store }) => {
    try {
      return describePlan(await planJob(store, await findJob(store, params.id)));
    } catch (error) {
      if (!(error instanceof AppError) || error.code !== 'cannotPlan') throw error;
      return { passes: [], cutMm: 0, travelMm: 0, seconds: 0, parts: 0, problem: error.message };
    }
  },
});

export const getMachineFile = defineEndpoint({
  method: 'GET',
  path: '/api/jobs/{id}/machine-file',
  summary: 'One part of a job as HPGL, to download.',
  params: jobParams,
  query: z.object({ part: z.coerce.number().int().min(1).default(1) }),
  reply: z.string().meta({ description: 'HPGL' }),
  handle: async ({ params, query }, { store }) => {
    const job = await findJob(store, params.id);
    const { parts, station } = await planJob(store, job);
    const part = parts[query.part - 1];
    if (!part) throw new AppError('notFound', `this job has ${parts.length} parts, no part ${query.part}`);
    const options = hpglOptionsOf(station.machine);
    const suffix = parts.length > 1 ? `-part-${query.part}` : '';
    const fileName = `${job.name.replace(/[^a-z0-9]+/gi, '-').replace(/^-|-$/g, '')}${suffix}.hpgl`;
    return new Response(writeHpgl(part.passes, job.sheet.heightMm, options), {
      headers: {
        'content-type': 'application/vnd.hp-hpgl',
        'content-disposition': `attachment; filename="${fileName || 'job.hpgl'}"`,
      },
    });
  },
});

function describePlan({ plan, parts }: PlannedJob): PlanReply {
  const passes = plan.passes.map(({ strokes, ...pass }) => ({
    ...pass,
    strokes: strokes.length,
    route: strokes.map((stroke) => stroke.points),
  }));
  return { ...plan, passes, parts: parts.length, problem: null };
}
