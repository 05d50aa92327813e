import { z } from 'zod';
import { writePictureSvg } from '#core/artwork/pictureDrawing.ts';
import type { Job, JobDrawing } from '#core/job/job.ts';
import { AppError } from '#core/errors/appError.ts';
import { pageOf } from '#core/sheet/sheetSize.ts';
import { sheetQuery } from '#web/endpoints/jobs/jobPlan.ts';
import { smallPicturesOf } from '#web/endpoints/jobs/pictures/jobPictures.ts';
import { keepBytes } from '#web/endpoints/jobs/pictures/keepPictures.ts';
import { showArt } from '#web/endpoints/jobs/pictures/showArt.ts';
import { openPicture } from '#web/endpoints/jobs/pictures/openPicture.ts';
import { withoutDrawing } from '#core/job/drawingsOf.ts';
import { EMPTY_SHELF } from '#core/sheet/offerSheets.ts';
import type { Store } from '#store/connection/connectStore.ts';
import {
  addDrawings,
  addJob,
  findDrawing,
  findJob,
  findJobHead,
  removeDrawing,
} from '#store/repositories/jobs/jobs.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { jobParams, MAX_JOB_BYTES } from '#web/endpoints/jobs/jobs.ts';
import { drawingOf, starter } from '#web/endpoints/jobs/startDrawings.ts';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';
import { jobSchema, newDrawingSchema } from '#web/schemas/job.ts';
import { runTask } from '#web/workers/pool.ts';

export const postDrawings = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/jobs/{id}/drawings',
  summary: 'Lays further drawings beside those of a job.',
  params: jobParams,
  body: z.object({
    version: z.number().int().positive(),
    drawings: z.array(newDrawingSchema).min(1).max(50),
  }),
  maxBytes: MAX_JOB_BYTES,
  reply: z.object({ numbers: z.array(z.number()).readonly() }),
  status: 201,
  change: 'own',
  handle: async ({ params, body }, { store, once, signal }) => {
    const job = await findJob(store, params.id);
    const machine = await findMachine(store, job.machineId);
    const { condition } = await findMaterialByCondition(store, job.conditionId);
    const start = await starter(store, {
      stack: condition.stack,
      machine,
      signal,
      // The job has its sheet.
      shelf: EMPTY_SHELF,
    });
    const started = await Promise.all(body.drawings.map(start));
    const drawings = started.map((one) => drawingOf(one, 0));
    const next = withDrawings(job, drawings);
    const layout = (await runTask('relay', { job, next, machine }, { signal })) ?? job.layout;
    return once(async (inOne) => ({
      numbers: await addDrawings(inOne, params.id, drawings, body.version, new Date(), () => layout),
    }));
  },
});

/** Numbers that none has: what they are called is known when they are kept. */
const FIRST_FREE = 1_000_000;

function withDrawings(job: Job, drawings: readonly Omit<JobDrawing, 'number'>[]): Job {
  const more = drawings.map((one, index) => ({ ...one, number: FIRST_FREE + index }));
  return { ...job, moreDrawings: [...(job.moreDrawings ?? []), ...more] };
}

export const deleteDrawing = defineEndpoint({
  method: 'DELETE',
  role: 'operator',
  path: '/api/jobs/{id}/drawings/{drawing}',
  summary: 'Takes a drawing out of a job; when it is the first, the next takes its place.',
  params: jobParams.extend({ drawing: z.coerce.number().int().min(0) }),
  query: z.object({ version: z.coerce.number().int().positive() }),
  reply: jobSchema,
  handle: async ({ params, query }, { store }) => {
    const job = await findJob(store, params.id);
    const { next, renumbered } = withoutDrawing(job, params.drawing);
    const machine = await findMachine(store, job.machineId);
    const layout = (await runTask('relay', { job, next, machine, renumbered })) ?? next.layout;
    await removeDrawing(store, params.id, params.drawing, layout, query.version, new Date());
    return findJobHead(store, params.id);
  },
});

export const postCopy = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/jobs/{id}/copies',
  summary: 'A job with everything of another: drawings, roles, layout and choices.',
  params: jobParams,
  body: z.object({ name: newDrawingSchema.shape.name }),
  reply: z.object({ id: z.number() }),
  status: 201,
  handle: async ({ params, body }, { store }) => {
    const { id: _id, version: _version, updatedAt: _at, ...job } = await findJob(store, params.id);
    return { id: await addJob(store, { ...job, name: body.name }, new Date()) };
  },
});

export const getPicture = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/picture',
  summary: 'A small picture of a job: its first sheet, or one of its drawings alone, as PNG.',
  params: jobParams,
  query: z.object({ drawing: z.coerce.number().int().min(0).optional() }),
  reply: z.string().meta({ description: 'image/png' }),
  handle: async ({ params, query }, { store, signal }) => {
    const png =
      query.drawing === undefined
        ? await drawSheet(store, params.id, signal)
        : await drawOne(store, params.id, query.drawing, signal);
    return new Response(png as Uint8Array<ArrayBuffer>, {
      headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=604800' },
    });
  },
});

async function drawSheet(store: Store, id: number, signal: AbortSignal): Promise<Uint8Array> {
  const job = await findJob(store, id);
  const machine = await findMachine(store, job.machineId);
  return runTask('sheetPicture', { job, machine, pictures: await smallPicturesOf(store, job) }, { signal });
}

async function drawOne(store: Store, id: number, number: number, signal: AbortSignal): Promise<Uint8Array> {
  const drawing = await findDrawing(store, id, number);
  return runTask('drawingPicture', { drawing, pictures: await smallPicturesOf(store, drawing) }, { signal });
}

export const getEdge = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/jobs/{id}/edge',
  summary: 'How the art of a job meets its outlines: pictures by what is not clear of them.',
  params: jobParams,
  reply: z.object({
    edge: z
      .object({
        inkedShare: z.number().meta({ description: 'of the outlines, that ink reaches or crosses' }),
        borderMm: z.number().meta({ description: 'the narrowest blank rim' }),
        drawnBleedMm: z.number(),
        narrowestGapMm: z.number().nullable(),
      })
      .nullable(),
  }),
  handle: async ({ params }, { store, signal }) => {
    const job = await findJob(store, params.id);
    return { edge: await runTask('edge', { job, shown: await showArt(store, job, signal) }, { signal }) };
  },
});

/** A page may be off by this in its shape: pixels are whole. */
const SHAPE_SHARE = 0.01;

export const postPage = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/jobs/{id}/pages',
  summary:
    'A page that was painted over the marks page comes back: it becomes art of the job, edge on edge with the sheet.',
  params: jobParams,
  query: sheetQuery,
  body: z.object({
    version: z.number().int().positive(),
    name: newDrawingSchema.shape.name,
    image: z.base64().min(1, 'the picture is empty'),
  }),
  maxBytes: MAX_JOB_BYTES,
  reply: z.object({ number: z.number() }),
  status: 201,
  change: 'own',
  handle: async ({ params, query, body }, { store, once }) => {
    const job = await findJob(store, params.id);
    const picture = await openPicture(Buffer.from(body.image, 'base64'));
    const { widthPx, heightPx } = picture;
    const { widthMm } = job.sheet;
    const { heightMm } = pageOf(job.sheet);
    if (Math.abs((widthPx * heightMm) / (heightPx * widthMm) - 1) > SHAPE_SHARE) {
      const size = `${widthMm.toFixed(1)} × ${heightMm.toFixed(1)} mm`;
      throw new AppError(
        'badInput',
        `the sheet is ${size}; this picture has another shape: bring the whole page`,
      );
    }
    const image = await keepBytes(store, picture);
    const source = writePictureSvg({ image, widthMm, heightMm, contours: [] });
    const drawing = {
      name: body.name,
      format: 'svg' as const,
      source,
      roles: {},
      lineRoles: {},
      areRolesGuessed: false,
      edits: [],
    };
    const machine = await findMachine(store, job.machineId);
    const sheetIndex = query.sheet - 1;
    const next = withDrawings(job, [drawing]);
    const page = { number: FIRST_FREE, sheet: sheetIndex };
    const layout = (await runTask('relay', { job, next, machine, page })) ?? job.layout;
    const layoutOf = ([number = 0]: readonly number[]) => ({
      ...layout,
      byDrawing: { ...layout.byDrawing, [number]: { page: sheetIndex } },
    });
    return once(async (inOne) => {
      const [number = 0] = await addDrawings(inOne, job.id, [drawing], body.version, new Date(), layoutOf);
      return { number };
    });
  },
});
