import { z } from 'zod';
import { settlePlain } from '#core/setting/settlePlain.ts';
import { requireLoaded } from '#core/station/requireLoaded.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { readAnswer, readBenchAnswer } from '#web/endpoints/bench/readAnswer.ts';
import { settingKey } from '#core/setting/settingKey.ts';
import { answerQuerySchema, benchAnswerSchema, keepSchema, operationSchema } from '#web/schemas/setting.ts';

export const getAnswer = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/stations/{machineId}/answers/{operation}',
  summary: 'What to set for the loaded sheet: values, window, chances, evidence and what to do next.',
  params: z.object({ machineId: idParam, operation: operationSchema }),
  query: answerQuerySchema,
  reply: benchAnswerSchema,
  handle: async ({ params, query }, { store }) => {
    const station = await findStation(store, params.machineId);
    return readBenchAnswer(store, station, params.operation, { passes: query.passes ?? null });
  },
});

export const postRevision = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/stations/{machineId}/settings',
  summary:
    'Keeps a new revision of the setting for the loaded sheet. What its colour and lot add is taken off the force first.',
  params: z.object({ machineId: idParam }),
  body: keepSchema,
  reply: benchAnswerSchema,
  status: 201,
  handle: async ({ params, body, author }, { store }) => {
    const station = requireLoaded(await findStation(store, params.machineId));
    const { loaded, machine } = station;
    const values = settlePlain(body.values, body.operation, machine, loaded);
    const key = settingKey(station, loaded.condition.id, body.operation);
    const { sources, reason, basedOn } = body;
    const revision = { values, sources, reason, author, lot: loaded.lot };
    await keepRevision(store, key, revision, basedOn, new Date());
    return readAnswer(store, station, body.operation);
  },
});
