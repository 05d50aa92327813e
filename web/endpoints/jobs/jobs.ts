import { z } from 'zod';
import { roleFactsOf } from '#core/job/roleFactsOf.ts';
import { nameCondition } from '#core/stack/material.ts';
import { requireLoaded } from '#core/station/requireLoaded.ts';
import {
  addJob,
  changeJob,
  findJob,
  findJobHead,
  listJobs,
  type JobChange,
} from '#store/repositories/jobs/jobs.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listMaterials } from '#store/repositories/book/materials.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { listRoleRules } from '#store/repositories/jobs/roleRules.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import {
  jobChangeSchema,
  jobSchema,
  jobSummarySchema,
  newJobSchema,
  type JobSummaryReply,
} from '#web/schemas/job.ts';
import { outlineDrawing } from '#web/endpoints/jobs/words/outlineDrawing.ts';
import { runTask } from '#web/workers/pool.ts';

export const jobParams = z.object({ id: idParam });
const MAX_BYTES = 64_000_000;

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
  summary: 'Makes a job from a drawing (SVG, DXF or HPGL), for what is loaded at a station.',
  body: newJobSchema,
  maxBytes: MAX_BYTES,
  reply: z.object({ id: z.number() }),
  status: 201,
  change: 'own',
  handle: async ({ body }, { store, once, signal }) => {
    const { loaded, machine } = requireLoaded(await findStation(store, body.machineId));
    const facts = roleFactsOf(loaded.condition.stack, machine);
    const { bedWidthMm, bedLengthMm, marginMm } = machine;
    const bed = { bedWidthMm, bedLengthMm, marginMm };
    const { name, format } = body;
    const source = format === 'svg' ? await outlineDrawing(store, body.source, signal) : body.source;
    const file = { name, format, source };
    const rules = await listRoleRules(store);
    const started = await runTask('startJob', { file, bed, facts, rules }, { signal });
    const job = { ...started, source, conditionId: loaded.condition.id, machineId: machine.id };
    return once(async (inOne) => ({ id: await addJob(inOne, job, new Date()) }));
  },
});

export const getJob = defineEndpoint({
  method: 'GET',
  path: '/api/jobs/{id}',
  summary: 'A job with its roles, mends, sheet, layout and choices; its drawing is under /source.',
  params: jobParams,
  reply: jobSchema,
  handle: async ({ params }, { store }) => findJobHead(store, params.id),
});

export const getSource = defineEndpoint({
  method: 'GET',
  path: '/api/jobs/{id}/source',
  summary: 'The drawing of a job as it was opened.',
  params: jobParams,
  reply: z.string().meta({ description: 'the file' }),
  handle: async ({ params }, { store }) => {
    const { source } = await findJob(store, params.id);
    // As plain text, so that no browser runs what a drawing may carry.
    return new Response(source, { headers: { 'content-type': 'text/plain; charset=utf-8' } });
  },
});

export const getCover = defineEndpoint({
  method: 'GET',
  path: '/api/jobs/{id}/cover',
  summary:
    'What the art of a job covers where its lines do not tell: traced from the picture that is printed.',
  params: jobParams,
  reply: z.object({
    covered: z
      .string()
      .nullable()
      .meta({ description: 'path data in mm of the file, for an outline around it' }),
  }),
  handle: async ({ params }, { store, signal }) => ({
    covered: await runTask('cover', await findJob(store, params.id), { signal }),
  }),
});

export const patchJob = defineEndpoint({
  method: 'PATCH',
  path: '/api/jobs/{id}',
  summary: 'Changes a job, unless somebody else changed it meanwhile.',
  params: jobParams,
  body: jobChangeSchema,
  maxBytes: 8_000_000,
  reply: jobSchema,
  handle: async ({ params, body }, { store }) => {
    const { version, ...change } = body;
    const layout = await layoutAfter(store, params.id, change);
    await changeJob(store, params.id, { ...change, ...layout }, version, new Date());
    return findJobHead(store, params.id);
  },
});

/** Roles and mends may make other pieces: then those laid out are taken off the sheet in the same change. */
async function layoutAfter(store: Store, id: number, change: JobChange): Promise<Pick<JobChange, 'layout'>> {
  if (change.layout || !(change.roles || change.lineRoles || change.edits)) return {};
  const job = await findJob(store, id);
  const { roles = job.roles, lineRoles = job.lineRoles, edits = job.edits } = change;
  const layout = await runTask('fitLayout', {
    job,
    next: { roles, lineRoles, edits, layout: job.layout, sheet: change.sheet ?? job.sheet },
  });
  return layout ? { layout } : {};
}
