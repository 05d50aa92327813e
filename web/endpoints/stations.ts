import { z } from 'zod';
import {
  addMachine,
  changeStation,
  findStation,
  listBlades,
  listMachines,
  listMats,
} from '#store/repositories/stations.ts';
import { defineEndpoint, idParam } from '#web/endpoints/defineEndpoint.ts';
import {
  bladeSchema,
  machineSchema,
  matSchema,
  newMachineSchema,
  stationChangeSchema,
  stationSchema,
} from '#web/schemas/station.ts';

export const getMachines = defineEndpoint({
  method: 'GET',
  path: '/api/machines',
  summary: 'All machines with their scales and limits.',
  reply: z.array(machineSchema).readonly(),
  handle: (_, { store }) => listMachines(store),
});

export const postMachine = defineEndpoint({
  method: 'POST',
  path: '/api/machines',
  summary: 'Adds a machine and its station.',
  body: newMachineSchema,
  reply: z.object({ id: z.number() }),
  status: 201,
  handle: async ({ body }, { store }) => ({ id: await addMachine(store, body, new Date()) }),
});

export const getUpkeep = defineEndpoint({
  method: 'GET',
  path: '/api/upkeep',
  summary: 'All blades and mats with their wear.',
  reply: z.object({ blades: z.array(bladeSchema).readonly(), mats: z.array(matSchema).readonly() }),
  handle: async (_, { store }) => ({ blades: await listBlades(store), mats: await listMats(store) }),
});

export const getStation = defineEndpoint({
  method: 'GET',
  path: '/api/stations/{machineId}',
  summary: 'A machine with the blade in it, the mat under it and the sheet on it.',
  params: z.object({ machineId: idParam }),
  reply: stationSchema,
  handle: ({ params }, { store }) => findStation(store, params.machineId),
});

export const patchStation = defineEndpoint({
  method: 'PATCH',
  path: '/api/stations/{machineId}',
  summary: 'Changes what is at a station; what is not named stays.',
  params: z.object({ machineId: idParam }),
  body: stationChangeSchema,
  reply: stationSchema,
  handle: async ({ params, body, author }, { store }) => {
    await changeStation(store, params.machineId, body, author, new Date());
    return findStation(store, params.machineId);
  },
});
