import { z } from 'zod';
import { HARM_CUTS } from '#core/dialIn/proposeNextCut.ts';
import type { Store } from '#store/connection/connectStore.ts';
import {
  addOperator,
  findHarmCuts,
  listOperators,
  putOperatorAway,
  setHarmCuts,
  setTimeZone,
} from '#store/repositories/workshop/workshop.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { workshopZone } from '#web/http/workshopZone.ts';
import {
  newOperatorSchema,
  workshopChangeSchema,
  workshopSchema,
  type WorkshopReply,
} from '#web/schemas/workshop.ts';

/** What is the workshop's own, as its page shows it. */
export async function describeWorkshop(store: Store): Promise<WorkshopReply> {
  const [timeZone, people, harmCuts] = await Promise.all([
    workshopZone(store),
    listOperators(store, true),
    findHarmCuts(store),
  ]);
  return { timeZone, people, harmCuts: harmCuts ?? HARM_CUTS };
}

export const getWorkshop = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/workshop',
  summary: 'The time zone of the workshop, who works in it, and what a spoiled liner or mat costs it.',
  reply: workshopSchema,
  handle: (_, { store }) => describeWorkshop(store),
});

export const putWorkshop = defineEndpoint({
  method: 'PUT',
  role: 'owner',
  path: '/api/workshop',
  summary:
    'Sets the time zone that log, day, waits and calendars are told in, or what a spoiled liner or mat costs.',
  body: workshopChangeSchema,
  reply: workshopSchema,
  handle: async ({ body }, { store }) => {
    const { timeZone, harmCuts } = body;
    if (timeZone !== undefined) await setTimeZone(store, timeZone);
    if (harmCuts !== undefined) await setHarmCuts(store, harmCuts);
    return describeWorkshop(store);
  },
});

export const postOperator = defineEndpoint({
  method: 'POST',
  role: 'owner',
  path: '/api/operators',
  summary: 'Adds somebody who works at the bench, or brings back who was put away.',
  body: newOperatorSchema,
  reply: workshopSchema,
  status: 201,
  handle: async ({ body: { name }, author }, { store }) => {
    await addOperator(store, name, author, new Date());
    return describeWorkshop(store);
  },
});

export const deleteOperator = defineEndpoint({
  method: 'DELETE',
  role: 'owner',
  path: '/api/operators/{id}',
  summary: 'Puts somebody away. What they signed stays signed.',
  params: z.object({ id: idParam }),
  reply: workshopSchema,
  handle: async ({ params: { id }, author }, { store }) => {
    await putOperatorAway(store, id, author, new Date());
    return describeWorkshop(store);
  },
});
