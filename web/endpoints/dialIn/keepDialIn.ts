import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { isCutThisWay } from '#core/dialIn/cutThisWay.ts';
import type { DialIn } from '#core/dialIn/dialIn.ts';
import { settlePlain } from '#core/setting/settlePlain.ts';
import type { LoadedStation } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { changeDialIn, findDialIn } from '#store/repositories/dialIn/dialIns.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { addRevisionEvidence } from '#store/repositories/dialIn/revisionEvidence.ts';
import { requireStoredSetting } from '#store/repositories/book/settings.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { listMoved, predictNeighbours } from '#web/endpoints/dialIn/listMoved.ts';
import { findDialInStation, readDialIn, questionDialIn } from '#web/endpoints/dialIn/readDialIn.ts';
import { settingKey } from '#core/setting/settingKey.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';
import { keepDialInSchema, keptReplySchema } from '#web/schemas/dialIn.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';
import { runTask } from '#web/workers/pool.ts';
import { refitNow } from '#web/workers/refitKnowledge.ts';

export const postKeep = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'own',
  path: '/api/dial-ins/{id}/keep',
  summary: 'Keeps the found force as a new revision with its evidence, and tells which predictions it moved.',
  params: z.object({ id: idParam }),
  body: keepDialInSchema,
  reply: keptReplySchema,
  status: 201,
  handle: async ({ params, body, author }, context) => {
    const { store } = context;
    const dialIn = await findDialIn(store, params.id);
    // The book takes in what was cut until now, so that what it moved can be told with what is kept.
    const before = await predictNeighbours(store, (await findDialInStation(store, dialIn)).station);
    const knowledgeId = await refitNow(context).catch(() => null);
    const { bench } = await readDialIn(store, dialIn);
    const asked = await questionDialIn(store, dialIn);
    const { answer } = bench;
    const speedMmPerS = speedToMmPerS(dialIn.speed, asked.station.machine.speedScale);
    if (!answer || !bench.cuts.some((cut) => isCutThisWay(cut, { passes: dialIn.passes, speedMmPerS }))) {
      const message = 'a prediction is never kept: cut once in this many passes and at this speed first';
      throw new AppError('badInput', message);
    }
    const force = body.force ?? answer.bestForce;
    const key = settingKey(asked.station, dialIn.conditionId, dialIn.operation);
    const values = valuesOf(bench, dialIn, force, asked.station);
    const sources = { ...answer.suggestion.sources, ...bench.revision?.sources, force: 'testCuts' as const };
    const revision = { values, sources, reason: body.reason, author, lot: dialIn.lot };
    const moved = listMoved(before, await predictNeighbours(store, asked.station));
    const summary = { ...(await runTask('kept', { question: asked, force }, { lane: 'quick' })), moved };
    return context.once(async (inOne) => {
      const number = await keepRevision(inOne, key, revision, body.basedOn, new Date());
      await endDialIn(inOne, dialIn);
      const { id: settingId } = await requireStoredSetting(inOne, key);
      await addRevisionEvidence(inOne, settingId, {
        revision: number,
        dialInId: dialIn.id,
        knowledgeId: knowledgeId ?? (asked.knowledgeId || null),
        summary,
      });
      return { revision: number, settingId, moved };
    });
  },
});

async function endDialIn(store: Store, { id }: DialIn): Promise<void> {
  const { version, state } = await findDialIn(store, id);
  if (state === 'open') await changeDialIn(store, id, version, { state: 'kept', card: null }, new Date());
}

/** The values to keep, without what colour and lot add to the force. */
function valuesOf(
  { answer, revision }: BenchAnswer,
  { operation, passes, speed, exposureMm }: DialIn,
  force: number,
  { machine, loaded }: LoadedStation,
) {
  const base = revision?.values ?? answer?.suggestion.values;
  if (!base) throw new AppError('badInput', 'there is nothing to keep');
  return settlePlain({ ...base, force, passes, speed, exposureMm }, operation, machine, loaded);
}
