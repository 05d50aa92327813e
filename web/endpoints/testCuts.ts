import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { gradesOfStack } from '#core/stack/depthGrade.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import { requireExposureInRange } from '#core/units/depthScale.ts';
import { forceToGf } from '#core/units/forceScale.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';
import { findStation } from '#store/repositories/stations.ts';
import { addTestCut, undoTestCut } from '#store/repositories/testCuts.ts';
import { defineEndpoint, idParam } from '#web/endpoints/defineEndpoint.ts';
import { loadAnswer } from '#web/endpoints/loadAnswer.ts';
import { benchAnswerSchema, newTestCutSchema } from '#web/schemas/setting.ts';

export const postTestCut = defineEndpoint({
  method: 'POST',
  path: '/api/stations/{machineId}/test-cuts',
  summary: 'Records a test cut of the loaded sheet; replies with the answer it leaves for as many passes.',
  params: z.object({ machineId: idParam }),
  body: newTestCutSchema,
  reply: benchAnswerSchema,
  status: 201,
  handle: async ({ params, body, author }, { store }) => {
    const station = await findStation(store, params.machineId);
    const { machine, loaded, blade } = station;
    if (!loaded) throw new AppError('badInput', 'no sheet is loaded at this station');
    const grades = gradesOfStack(measureStack(loaded.condition.stack).isLayered);
    if (!grades.includes(body.grade)) {
      throw new AppError('badInput', `this sheet has no grade ${body.grade}; it shows ${grades.join(', ')}`);
    }
    requireExposureInRange(body.exposureMm, machine.depthScale);
    const { speed, ...cut } = body;
    await addTestCut(
      store,
      {
        ...cut,
        conditionId: loaded.condition.id,
        machineId: machine.id,
        forceGf: forceToGf(body.force, machine.forceScale),
        speedMmPerS: speedToMmPerS(speed, machine.speedScale),
        bladeMetres: blade?.travelMetres ?? 0,
        author,
        lot: loaded.lot,
        colour: loaded.colour,
      },
      new Date(),
    );
    return loadAnswer(store, station, body.operation, body.passes);
  },
});

export const deleteTestCut = defineEndpoint({
  method: 'DELETE',
  path: '/api/test-cuts/{id}',
  summary: 'Takes a test cut back. It stays in the log, marked.',
  params: z.object({ id: idParam }),
  reply: z.object({ isUndone: z.literal(true) }),
  handle: async ({ params }, { store }) => {
    await undoTestCut(store, params.id, new Date());
    return { isUndone: true as const };
  },
});
