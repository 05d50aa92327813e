import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { forceUnit, requireForceInRange, snapForce } from '#core/units/forceScale.ts';
import { describeExposure, requireExposureInRange } from '#core/units/depthScale.ts';
import { snapSpeed } from '#core/units/speedScale.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listMaterials } from '#store/repositories/materials.ts';
import { keepRevision, listSettings } from '#store/repositories/settings.ts';
import { findStation, listMachines } from '#store/repositories/stations.ts';
import { defineEndpoint, idParam } from '#web/endpoints/defineEndpoint.ts';
import { loadAnswer } from '#web/endpoints/loadAnswer.ts';
import { settingKey } from '#web/endpoints/settingKey.ts';
import {
  answerQuerySchema,
  benchAnswerSchema,
  keepSchema,
  operationSchema,
  settingSummarySchema,
  type SettingSummary,
} from '#web/schemas/setting.ts';

export const getAnswer = defineEndpoint({
  method: 'GET',
  path: '/api/stations/{machineId}/answers/{operation}',
  summary: 'What to set for the loaded sheet: values, window, chances, evidence and what to do next.',
  params: z.object({ machineId: idParam, operation: operationSchema }),
  query: answerQuerySchema,
  reply: benchAnswerSchema,
  handle: async ({ params, query }, { store }) => {
    const station = await findStation(store, params.machineId);
    return loadAnswer(store, station, params.operation, query.passes ?? null);
  },
});

export const postRevision = defineEndpoint({
  method: 'POST',
  path: '/api/stations/{machineId}/settings',
  summary: 'Keeps a new revision of the setting for the loaded sheet.',
  params: z.object({ machineId: idParam }),
  body: keepSchema,
  reply: benchAnswerSchema,
  status: 201,
  handle: async ({ params, body, author }, { store }) => {
    const station = await findStation(store, params.machineId);
    if (!station.loaded) throw new AppError('badInput', 'no sheet is loaded at this station');
    const { forceScale, speedScale, depthScale } = station.machine;
    requireForceInRange(body.values.force, forceScale);
    requireExposureInRange(body.values.exposureMm, depthScale);
    const force = snapForce(body.values.force, forceScale);
    const values = { ...body.values, force, speed: snapSpeed(body.values.speed, speedScale) };
    const key = settingKey(station, station.loaded.condition.id, body.operation);
    const { sources, reason, basedOn } = body;
    await keepRevision(store, key, { values, sources, reason, author }, basedOn, new Date());
    return loadAnswer(store, station, body.operation);
  },
});

export const getSettings = defineEndpoint({
  method: 'GET',
  path: '/api/settings',
  summary: 'Every kept setting at its newest revision.',
  reply: z.array(settingSummarySchema).readonly(),
  handle: (_, { store }) => listSummaries(store),
});

/** Every kept setting with the words to show it. */
export async function listSummaries(store: Store): Promise<readonly SettingSummary[]> {
  const [settings, materials, machines] = await Promise.all([
    listSettings(store),
    listMaterials(store),
    listMachines(store),
  ]);
  return settings.flatMap((setting) => {
    const { conditionId, machineId, bladeKind, operation } = setting.key;
    const material = materials.find((one) => one.conditions.some(({ id }) => id === conditionId));
    const condition = material?.conditions.find(({ id }) => id === conditionId);
    const machine = machines.find(({ id }) => id === machineId);
    if (!material || !condition || !machine) return [];
    return {
      id: setting.id,
      conditionId,
      machineId,
      material: nameCondition(material.name, condition.kind),
      maker: material.maker,
      machine: machine.name,
      bladeKind,
      operation,
      state: setting.state,
      revision: setting.revision,
      forceUnit: forceUnit(machine.forceScale),
      speedUnit: machine.speedScale.unit,
      exposureWords: describeExposure(setting.revision.values.exposureMm, machine.depthScale),
      cleanRuns: setting.verdicts.filter((verdict) => verdict === 'clean').length,
      runs: setting.verdicts.length,
    };
  });
}
