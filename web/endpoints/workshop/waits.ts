import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import type { JobHead } from '#core/job/job.ts';
import { findWaits as waitsOnRoute, usualWaits } from '#core/prep/waitOrder.ts';
import type { LoadedSheet } from '#core/station/station.ts';
import { findWait, WAIT_KINDS, WAIT_WORDS, type Wait, type WaitKind } from '#core/prep/waits.ts';
import type { Material } from '#core/stack/material.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findJobHead } from '#store/repositories/jobs/jobs.ts';
import { findMaterial, findMaterialByCondition } from '#store/repositories/book/materials.ts';
import {
  clearTimer,
  findWaitRoutes,
  findWaits,
  listTimers,
  setWait,
  setWaitRoute,
  startTimer,
} from '#store/repositories/jobs/waits.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { replyWithFile } from '#web/http/replyWithFile.ts';
import { CALENDAR_TYPE, writeCalendar } from '#web/endpoints/workshop/writeCalendar.ts';
import { newTimerSchema, timerSchema, waitRouteSchema, waitSchema } from '#web/schemas/day.ts';

const params = z.object({ id: idParam });

/** Every wait of a material with its length and where that comes from. */
export async function listWaits(store: Store, material: Material): Promise<readonly Wait[]> {
  const said = await findWaits(store, material.id);
  return WAIT_KINDS.map((kind) => findWait(kind, material, said));
}

/** All that a sheet waits for on its way, in order, with its lengths: the workshop's own route, else the usual one. */
export async function readWaitRoute(
  store: Store,
  { material, condition }: Pick<LoadedSheet, 'material' | 'condition'>,
  isPrinted: boolean,
): Promise<readonly Wait[]> {
  const [own, lengths] = await Promise.all([
    findWaitRoutes(store, [condition.id]),
    listWaits(store, material),
  ]);
  const question = { family: material.family, condition: condition.kind, isPrinted };
  const route = waitsOnRoute(question, own.get(condition.id) ?? null);
  return route.flatMap((kind) => lengths.find((wait) => wait.kind === kind) ?? []);
}

/** The timer of a wait for a job or a material, with its words and the length that is said or usual. */
export async function composeTimer(
  store: Store,
  kind: WaitKind,
  job: Pick<JobHead, 'id' | 'name'> | null,
  material: Material | null,
) {
  const question = material ?? { family: 'other' as const, finish: '' };
  const said = material ? await findWaits(store, material.id) : {};
  const of = job?.name ?? material?.name;
  return {
    kind,
    words: of ? `${of}: ${WAIT_WORDS[kind]}` : WAIT_WORDS[kind],
    jobId: job?.id ?? null,
    materialId: material?.id ?? null,
    minutes: findWait(kind, question, said).minutes,
  };
}

/** The route of every state of a material, printed, and whether it is the workshop's own. */
export async function listRoutes(store: Store, material: Material) {
  const own = await findWaitRoutes(
    store,
    material.conditions.map(({ id }) => id),
  );
  return material.conditions.map(({ id, kind }) => {
    const question = { family: material.family, condition: kind, isPrinted: kind !== 'bare' };
    const said = own.get(id) ?? null;
    return { conditionId: id, condition: kind, kinds: said ?? usualWaits(question), isOwn: said !== null };
  });
}

export const putWaitRoute = defineEndpoint({
  method: 'PUT',
  role: 'operator',
  path: '/api/materials/{id}/wait-routes/{conditionId}',
  summary: 'Says what a state of a material waits for, in order; null leaves it to the usual again.',
  params: z.object({ id: idParam, conditionId: idParam }),
  body: z.object({ kinds: z.array(z.enum(WAIT_KINDS)).max(10).readonly().nullable() }),
  reply: z.array(waitRouteSchema).readonly(),
  handle: async ({ params: { id, conditionId }, body, author }, { store }) => {
    const material = await findMaterial(store, id);
    if (!material.conditions.some((one) => one.id === conditionId)) {
      throw new AppError('notFound', `${material.name} has no state ${conditionId}`);
    }
    await setWaitRoute(store, conditionId, body.kinds, author, new Date());
    return listRoutes(store, material);
  },
});

export const getTimers = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/timers',
  summary: 'Waits under way, those that end first before the others.',
  reply: z.array(timerSchema).readonly(),
  handle: (_, { store }) => listTimers(store),
});

export const postTimer = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/timers',
  summary:
    'Starts a wait: ink, sealer, laminate. Its length is that of the material unless another is given.',
  body: newTimerSchema,
  reply: z.array(timerSchema).readonly(),
  status: 201,
  handle: async ({ body, author }, { store }) => {
    const job = body.jobId === null ? null : await findJobHead(store, body.jobId);
    const material = job
      ? (await findMaterialByCondition(store, job.conditionId)).material
      : body.materialId === null
        ? null
        : await findMaterial(store, body.materialId);
    const timer = await composeTimer(store, body.kind, job, material);
    const minutes = body.minutes ?? timer.minutes;
    await startTimer(store, { ...timer, minutes, author }, new Date());
    return listTimers(store);
  },
});

export const postTimerClear = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/timers/{id}/clear',
  summary: 'Clears a wait: it is over, or was not needed.',
  params,
  reply: z.array(timerSchema).readonly(),
  handle: async ({ params: { id } }, { store }) => {
    await clearTimer(store, id, new Date());
    return listTimers(store);
  },
});

export const getTimerCalendar = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/timers.ics',
  summary: 'Waits under way as a calendar file, each with an alarm at its end.',
  reply: z.string().meta({ description: 'text/calendar' }),
  handle: async (_, { store }) => {
    const timers = await listTimers(store);
    const events = timers.map(({ id, words, startedAt, endsAt }) => ({
      id: `timer-${id}`,
      words,
      from: new Date(startedAt),
      to: new Date(endsAt),
      hasAlarm: true,
    }));
    return replyWithFile(writeCalendar('Waits', events), CALENDAR_TYPE, 'waits.ics');
  },
});

export const getWaits = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/materials/{id}/waits',
  summary: 'How long a material waits for what, and whether its maker or habit says so.',
  params,
  reply: z.array(waitSchema).readonly(),
  handle: async ({ params: { id } }, { store }) => listWaits(store, await findMaterial(store, id)),
});

export const putWait = defineEndpoint({
  method: 'PUT',
  role: 'operator',
  path: '/api/materials/{id}/waits',
  summary: 'Says how long a wait is by the maker of a material; null leaves it to habit again.',
  params,
  body: z.object({
    kind: z.enum(WAIT_KINDS),
    minutes: z
      .number('a number of minutes')
      .int()
      .min(0)
      .max(14 * 24 * 60)
      .nullable(),
  }),
  reply: z.array(waitSchema).readonly(),
  handle: async ({ params: { id }, body, author }, { store }) => {
    const material = await findMaterial(store, id);
    await setWait(store, id, body.kind, body.minutes, author, new Date());
    return listWaits(store, material);
  },
});
