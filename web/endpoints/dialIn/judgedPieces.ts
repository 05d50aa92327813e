import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { settleValues } from '#core/setting/settleValues.ts';
import { suggestValues } from '#core/setting/suggestValues.ts';
import { requireLoaded } from '#core/station/requireLoaded.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { addJudgedPiece, undoJudgedPiece } from '#store/repositories/dialIn/judgedPieces.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { answerJudged, operationOf } from '#web/endpoints/dialIn/answerJudged.ts';
import { findLoadedSetting } from '#web/endpoints/bench/findLoadedSetting.ts';
import { settingKey } from '#core/setting/settingKey.ts';
import {
  judgedReplySchema,
  keepJudgedSchema,
  newPieceSchema,
  quantitySchema,
} from '#web/schemas/judgedPieces.ts';

const at = z.object({ machineId: idParam, quantity: quantitySchema });

export const getJudged = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/stations/{machineId}/judged/{quantity}',
  summary: 'How tabs held or creases folded on the loaded sheet, and what to try next.',
  params: at,
  reply: judgedReplySchema,
  handle: async ({ params }, { store }) =>
    answerJudged(store, requireLoaded(await findStation(store, params.machineId)), params.quantity),
});

export const postJudged = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/stations/{machineId}/judged/{quantity}',
  summary: 'Records one judged piece: 0 too weak to 4 too strong.',
  params: at,
  body: newPieceSchema,
  reply: judgedReplySchema,
  status: 201,
  handle: async ({ params, body, author }, { store }) => {
    const station = requireLoaded(await findStation(store, params.machineId));
    const { loaded, machine } = station;
    const piece = { ...body, quantity: params.quantity, author, lot: loaded.lot };
    const where = { conditionId: loaded.condition.id, machineId: machine.id };
    await addJudgedPiece(store, { ...piece, ...where }, new Date());
    return answerJudged(store, station, params.quantity);
  },
});

export const deleteJudged = defineEndpoint({
  method: 'DELETE',
  role: 'operator',
  path: '/api/judged-pieces/{id}',
  summary: 'Takes a judged piece back. It stays in the log, marked.',
  params: z.object({ id: idParam }),
  reply: z.object({ isUndone: z.literal(true) }),
  handle: async ({ params }, { store }) => {
    await undoJudgedPiece(store, params.id, new Date());
    return { isUndone: true as const };
  },
});

export const postKeepJudged = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/stations/{machineId}/judged/{quantity}/keep',
  summary: 'Keeps tab and cut length, or the crease force, as a revision of the setting.',
  params: at,
  body: keepJudgedSchema,
  reply: judgedReplySchema,
  status: 201,
  handle: async ({ params, body, author }, { store }) => {
    const station = requireLoaded(await findStation(store, params.machineId));
    const { loaded, machine, blade } = station;
    const operation = operationOf(params.quantity);
    const key = settingKey(station, loaded.condition.id, operation);
    const [own, through, kiss] = await Promise.all([
      findLoadedSetting(store, station, operation),
      findLoadedSetting(store, station, 'through'),
      findLoadedSetting(store, station, 'kiss'),
    ]);
    if (params.quantity === 'tabs' && !through) {
      throw new AppError(
        'badInput',
        'find the through cut first: a perforation uses its force between the tabs',
      );
    }
    const base =
      own?.revision.values ??
      through?.revision.values ??
      suggestValues(loaded.material, loaded.condition, machine, blade, 'through', 300).values;
    const values = settleValues(
      { ...base, ...body.given },
      operation,
      machine,
      kiss?.revision.values.force ?? null,
    );
    const sources =
      params.quantity === 'tabs'
        ? ({
            tabLengthMm: 'testCuts',
            cutLengthMm: 'testCuts',
            ...(values.tabWay === 'kissForce' ? { tabForce: 'kiss' as const } : {}),
          } as const)
        : ({ force: 'testCuts' } as const);
    const revision = {
      values,
      sources: { ...own?.revision.sources, ...sources },
      reason: body.reason,
      author,
      lot: loaded.lot,
    };
    await keepRevision(store, key, revision, body.basedOn, new Date());
    return answerJudged(store, station, params.quantity);
  },
});
