import { z } from 'zod';
import { withoutDrawing } from '#core/job/drawingsOf.ts';
import { addDrawings, addJob, findJob, findJobHead, removeDrawing } from '#store/repositories/jobs/jobs.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { jobParams, MAX_JOB_BYTES } from '#web/endpoints/jobs/jobs.ts';
import { drawingOf, starter } from '#web/endpoints/jobs/startDrawings.ts';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';
import { jobSchema, newDrawingSchema } from '#web/schemas/job.ts';
import { runTask } from '#web/workers/pool.ts';

export const postDrawings = defineEndpoint({
  method: 'POST',
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
    const start = await starter(store, { stack: condition.stack, machine, signal });
    const started = await Promise.all(body.drawings.map(start));
    const drawings = started.map((one) => drawingOf(one, 0));
    return once(async (inOne) => ({
      numbers: await addDrawings(inOne, params.id, drawings, body.version, new Date()),
    }));
  },
});

export const deleteDrawing = defineEndpoint({
  method: 'DELETE',
  path: '/api/jobs/{id}/drawings/{drawing}',
  summary: 'Takes a drawing out of a job; when it is the first, the next takes its place.',
  params: jobParams.extend({ drawing: z.coerce.number().int().min(0) }),
  query: z.object({ version: z.coerce.number().int().positive() }),
  reply: jobSchema,
  handle: async ({ params, query }, { store }) => {
    const job = await findJob(store, params.id);
    const { next, renumbered } = withoutDrawing(job, params.drawing);
    const machine = await findMachine(store, job.machineId);
    const isArranged = next.layout.arrangement !== undefined;
    const layout = await runTask('relay', {
      job,
      next,
      machine,
      isArranged,
      ...(renumbered ? { renumbered } : {}),
    });
    await removeDrawing(store, params.id, params.drawing, layout ?? next.layout, query.version, new Date());
    return findJobHead(store, params.id);
  },
});

export const postCopy = defineEndpoint({
  method: 'POST',
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
  path: '/api/jobs/{id}/picture',
  summary: 'A small picture of a job: its first sheet, or one of its drawings alone, as PNG.',
  params: jobParams,
  query: z.object({ drawing: z.coerce.number().int().min(0).optional() }),
  reply: z.string().meta({ description: 'image/png' }),
  handle: async ({ params, query }, { store, signal }) => {
    const job = await findJob(store, params.id);
    const machine = await findMachine(store, job.machineId);
    const drawing = query.drawing ?? null;
    const png = await runTask('smallPicture', { job, machine, drawing }, { signal });
    return new Response(png as Uint8Array<ArrayBuffer>, {
      headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=604800' },
    });
  },
});
