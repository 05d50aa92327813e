import { z } from 'zod';
import { findStation } from '#store/repositories/bench/stations.ts';
import { addTestCut, undoTestCut } from '#store/repositories/dialIn/testCuts.ts';
import { describeCut } from '#web/endpoints/dialIn/describeCut.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { readAnswer } from '#web/endpoints/bench/readAnswer.ts';
import { benchAnswerSchema, newTestCutSchema } from '#web/schemas/setting.ts';
import { requestRefit } from '#web/workers/refitKnowledge.ts';

export const postTestCut = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/stations/{machineId}/test-cuts',
  summary: 'Records a test cut of the loaded sheet; replies with the answer it leaves for as many passes.',
  params: z.object({ machineId: idParam }),
  body: newTestCutSchema,
  reply: benchAnswerSchema,
  status: 201,
  handle: async ({ params, body, author }, context) => {
    const { store } = context;
    const station = await findStation(store, params.machineId);
    const cut = describeCut(station, { ...body, author });
    await addTestCut(store, cut, new Date());
    context.afterwards(requestRefit);
    return readAnswer(store, station, body.operation, { passes: body.passes });
  },
});

export const deleteTestCut = defineEndpoint({
  method: 'DELETE',
  role: 'operator',
  path: '/api/test-cuts/{id}',
  summary: 'Takes a test cut back. It stays in the log, marked.',
  params: z.object({ id: idParam }),
  reply: z.object({ isUndone: z.literal(true) }),
  handle: async ({ params }, context) => {
    await undoTestCut(context.store, params.id, new Date());
    context.afterwards(requestRefit);
    return { isUndone: true as const };
  },
});
