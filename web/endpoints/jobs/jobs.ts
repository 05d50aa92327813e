import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { withChange } from '#core/job/withChange.ts';
import { nameCondition } from '#core/stack/material.ts';
import { requireLoaded } from '#core/station/requireLoaded.ts';
import {
  addJob,
  changeJob,
  findDrawing,
  findJob,
  findJobHead,
  listJobs,
  type JobChange,
} from '#store/repositories/jobs/jobs.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findMaterialByCondition, listMaterials } from '#store/repositories/book/materials.ts';
import { findMachine, listMachines } from '#store/repositories/book/machines.ts';
import { listUsedSheets } from '#store/repositories/jobs/usedSheets.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import {
  jobChangeSchema,
  jobSchema,
  jobSummarySchema,
  newJobSchema,
  type JobSummaryReply,
} from '#web/schemas/job.ts';
import { drawingOf, starter } from '#web/endpoints/jobs/startDrawings.ts';
import { screenPicturesOf, wholeFile } from '#web/endpoints/jobs/pictures/jobPictures.ts';
import { runTask } from '#web/workers/pool.ts';

export const jobParams = z.object({ id: idParam });
/** Which drawing of a job; the first where nothing is said. */
export const drawingQuery = z.object({ drawing: z.coerce.number().int().min(0).default(0) });
export const MAX_JOB_BYTES = 64_000_000;

export const getJobs = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs',
  summary: 'All jobs, the last changed first.',
  query: z.object({
    away: z.enum(['yes', 'no']).default('no').meta({ description: 'those put away among them' }),
  }),
  reply: z.array(jobSummarySchema).readonly(),
  handle: ({ query }, { store }) => listJobSummaries(store, query.away === 'yes'),
});

/** All jobs with the words to list them. */
export async function listJobSummaries(store: Store, isAwayToo = false): Promise<readonly JobSummaryReply[]> {
  const [jobs, materials, machines] = await Promise.all([
    listJobs(store, isAwayToo),
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
  role: 'operator',
  path: '/api/jobs',
  summary: 'Makes a job from a drawing (SVG, DXF or HPGL), for what is loaded at a station.',
  body: newJobSchema,
  maxBytes: MAX_JOB_BYTES,
  reply: z.object({ id: z.number() }),
  status: 201,
  change: 'own',
  handle: async ({ body, units: system }, { store, once, signal }) => {
    const { loaded, machine } = requireLoaded(await findStation(store, body.machineId));
    const { moreDrawings, border, copies, title, ...first } = body;
    const { material, condition } = loaded;
    const used = await listUsedSheets(store, material.id);
    const shelf = { remnants: material.details.remnants, used, system };
    const start = await starter(store, { stack: condition.stack, machine, signal, shelf, border });
    const [started, ...others] = await Promise.all([first, ...moreDrawings].map(start));
    if (!started) throw new AppError('badInput', 'a job has at least one drawing');
    const design = {
      ...started,
      ...(title ? { name: title, drawingName: started.name } : {}),
      layout: { ...started.layout, copies },
      moreDrawings: others.map((one, index) => drawingOf(one, index + 1)),
    };
    const laid =
      others.length > 0 || border || copies !== 1
        ? await runTask('startLayout', { job: design, machine, shelf }, { signal })
        : {};
    const job = { ...design, ...laid, conditionId: condition.id, machineId: machine.id };
    return once(async (inOne) => ({ id: await addJob(inOne, job, new Date()) }));
  },
});

export const getJob = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}',
  summary: 'A job with its roles, mends, sheet, layout and choices; its drawing is under /source.',
  params: jobParams,
  reply: jobSchema,
  handle: async ({ params }, { store }) => findJobHead(store, params.id),
});

export const getSource = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/source',
  summary: 'The drawing of a job as it was opened; `pictures=apart` names kept pictures by their addresses.',
  params: jobParams,
  query: drawingQuery.extend({ pictures: z.enum(['within', 'apart']).default('within') }),
  reply: z.string().meta({ description: 'the file' }),
  handle: async ({ params, query }, { store }) => {
    const { source: slim } = await findDrawing(store, params.id, query.drawing);
    const source = query.pictures === 'apart' ? slim : await wholeFile(store, slim);
    // As plain text, so that no browser runs what a drawing may carry.
    return new Response(source, { headers: { 'content-type': 'text/plain; charset=utf-8' } });
  },
});

export const getCover = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/cover',
  summary:
    'What the art of a job covers where its lines do not tell: traced from the picture that is printed.',
  params: jobParams,
  query: drawingQuery,
  reply: z.object({
    covered: z
      .string()
      .nullable()
      .meta({ description: 'path data in mm of the file, for an outline around it' }),
  }),
  handle: async ({ params, query }, { store, signal }) => {
    const drawing = await findDrawing(store, params.id, query.drawing);
    const pictures = await screenPicturesOf(store, drawing);
    return { covered: await runTask('cover', { drawing, pictures }, { signal }) };
  },
});

export const patchJob = defineEndpoint({
  method: 'PATCH',
  role: 'operator',
  path: '/api/jobs/{id}',
  summary: 'Changes a job, unless somebody else changed it meanwhile.',
  params: jobParams,
  body: jobChangeSchema,
  maxBytes: 8_000_000,
  reply: jobSchema,
  handle: async ({ params, body }, { store }) => {
    const { version, arrange, ...change } = body;
    if (change.machineId !== undefined) await findMachine(store, change.machineId);
    if (change.conditionId !== undefined) await findMaterialByCondition(store, change.conditionId);
    const layout = await layoutAfter(store, params.id, change, arrange);
    await changeJob(store, params.id, { ...change, ...layout }, version, new Date());
    return findJobHead(store, params.id);
  },
});

/** Roles and mends may make other pieces: what lies on the sheet follows in the same change. */
async function layoutAfter(
  store: Store,
  id: number,
  change: JobChange,
  isWanted: boolean,
): Promise<Pick<JobChange, 'layout'>> {
  const isDrawn = Boolean(change.roles ?? change.lineRoles ?? change.edits ?? change.moreDrawings);
  if (!isWanted && (!isDrawn || change.layout)) return {};
  const job = await findJob(store, id);
  const { isPutAway: _away, ...wished } = change;
  const next = withChange(job, wished);
  const machine = await findMachine(store, next.machineId);
  const layout = isWanted
    ? await runTask('arrange', { job: next, machine })
    : await runTask('relay', { job, next, machine });
  return layout ? { layout } : {};
}
