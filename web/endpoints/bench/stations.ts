import { z } from 'zod';
import { splitTerms } from '#core/lookup/terms.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { changeStation, findStation } from '#store/repositories/bench/stations.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { stationChangeSchema, stationSchema } from '#web/schemas/station.ts';

export const getStation = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/stations/{machineId}',
  summary: 'A machine with the blade in it, the mat under it and the sheet on it.',
  params: z.object({ machineId: idParam }),
  reply: stationSchema,
  handle: ({ params }, { store }) => findStation(store, params.machineId),
});

export const patchStation = defineEndpoint({
  method: 'PATCH',
  role: 'operator',
  path: '/api/stations/{machineId}',
  summary: 'Changes what is at a station; what is not named stays.',
  params: z.object({ machineId: idParam }),
  body: stationChangeSchema,
  reply: stationSchema,
  handle: async ({ params, body: { lotNamed, ...change }, author }, { store }) => {
    const lot = lotNamed && change.conditionId ? await findLot(store, change.conditionId, lotNamed) : null;
    const whole = lot ? { ...change, lot } : change;
    await changeStation(store, params.machineId, whole, author, new Date());
    return findStation(store, params.machineId);
  },
});

/** The code of the lot that has a word in it; `null` when none has. */
async function findLot(store: Store, conditionId: number, word: string): Promise<string | null> {
  const { material } = await findMaterialByCondition(store, conditionId);
  const isNamed = (code: string) => [...splitTerms(code), splitTerms(code).join('')].includes(word);
  return material.details.lots.find(({ code }) => isNamed(code))?.code ?? null;
}
