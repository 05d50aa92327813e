import { AppError } from '#core/errors/appError.ts';
import { z } from 'zod';
import { IDENTITY } from '#core/geometry/affine.ts';
import { startCardJob, placeCard } from '#core/job/startCardJob.ts';
import { fitRegistration, invertSimilarity } from '#core/sheet/marks/registration.ts';
import { readCard } from '#core/sheet/marks/registrationCard.ts';
import { hasLiner } from '#core/stack/layer.ts';
import { requireLoaded } from '#core/station/requireLoaded.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addJob } from '#store/repositories/jobs/jobs.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import {
  addRegistrationSheet,
  findRegistration,
  removeRegistrationSheet,
  setCorrection,
} from '#store/repositories/bench/registration.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { cardReadingSchema, registrationSchema, type RegistrationReply } from '#web/schemas/registration.ts';

const params = z.object({ id: idParam });

/** How print and cut meet on a machine, as its page shows it. */
export async function describeRegistration(store: Store, machineId: number): Promise<RegistrationReply> {
  const { sheets, correction, error } = await findRegistration(store, machineId);
  return {
    sheets: sheets.map(({ id, readings, author, at }) => {
      const { shift, rotationRad, scale, restMm } = fitRegistration([{ readings, corrected: IDENTITY }]);
      return { id, shift, rotationRad, scale, restMm, author, at };
    }),
    isCorrected: correction.some((value, index) => value !== IDENTITY[index]),
    error,
  };
}

export const getRegistration = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/machines/{id}/registration',
  summary:
    'How print and cut meet on a machine: sheets that were read, what files correct, what is believed.',
  params,
  reply: registrationSchema,
  handle: ({ params: { id } }, { store }) => describeRegistration(store, id),
});

export const postRegistrationCard = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/machines/{id}/registration-card',
  summary: 'Makes a job that prints and cuts a card on which the shift between print and cut can be read.',
  params,
  reply: z.object({ id: z.number() }),
  status: 201,
  handle: async ({ params: { id } }, { store }) => {
    const { loaded, machine } = requireLoaded(await findStation(store, id));
    const started = startCardJob(machine, hasLiner(loaded.condition.stack));
    const job = { ...started, conditionId: loaded.condition.id, machineId: machine.id };
    return { id: await addJob(store, job, new Date()) };
  },
});

export const postRegistrationSheet = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/machines/{id}/registration-sheets',
  summary: 'Keeps what was read off a card, in mm at each corner: x to the right, y down.',
  params,
  body: cardReadingSchema,
  reply: registrationSchema,
  status: 201,
  handle: async ({ params: { id }, body, author }, { store }) => {
    const { verniers } = placeCard(await findMachine(store, id));
    await addRegistrationSheet(store, id, readCard(verniers, body), null, author, new Date());
    return describeRegistration(store, id);
  },
});

export const deleteRegistrationSheet = defineEndpoint({
  method: 'DELETE',
  role: 'operator',
  path: '/api/machines/{id}/registration-sheets/{sheetId}',
  summary: 'Takes a read sheet back.',
  params: z.object({ id: idParam, sheetId: idParam }),
  reply: registrationSchema,
  handle: async ({ params: { id, sheetId }, author }, { store }) => {
    await removeRegistrationSheet(store, id, sheetId, author, new Date());
    return describeRegistration(store, id);
  },
});

export const putCorrection = defineEndpoint({
  method: 'PUT',
  role: 'operator',
  path: '/api/machines/{id}/registration-correction',
  summary: 'Lets files of a machine correct the shift that was read, or correct nothing any more.',
  params,
  body: z.object({ isOn: z.boolean() }),
  reply: registrationSchema,
  handle: async ({ params: { id }, body, author }, { store }) => {
    const { sheets } = await findRegistration(store, id);
    if (body.isOn && sheets.length === 0) {
      throw new AppError('badInput', 'no card of this machine was read yet: there is nothing to correct by');
    }
    const correction = body.isOn ? invertSimilarity(fitRegistration(sheets)) : null;
    await setCorrection(store, id, correction, author, new Date());
    return describeRegistration(store, id);
  },
});
