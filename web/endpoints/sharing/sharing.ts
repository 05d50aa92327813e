import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { forceFactorOf, labelOf } from '#core/knowledge/describeEffects.ts';
import { believeLessons, takeLessons, type Lessons, type MovedBelief } from '#core/sharing/lessons.ts';
import { MODEL_VERSION } from '#core/threshold/sheetModel/sheetModel.ts';
import { giverOf, openLessons, signedLessonsSchema, signLessons } from '#server/sharing/signLessons.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { findNewestKnowledge, findPriors } from '#store/repositories/dialIn/knowledge.ts';
import {
  listLessons,
  putLessonsAway,
  signingKey,
  takeLessonsIn,
} from '#store/repositories/sharing/lessons.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { newLessonsSchema, sharingSchema, type SharingReply } from '#web/schemas/sharing.ts';
import { requestRefit } from '#web/workers/refitKnowledge.ts';

const MOST_BYTES = 512 * 1024;
/** What moves a belief by less than this share of its spread is not worth a line. */
const LEAST_MOVED = 0.1;
const MOST_LINES = 12;

/** What others told, what each of them moves, and whether anything can be given away. */
export async function describeSharing(store: Store): Promise<SharingReply> {
  const [taken, machines, knowledge] = await Promise.all([
    listLessons(store),
    listMachines(store),
    findNewestKnowledge(store),
  ]);
  const believed = taken.filter(({ isPutAway }) => !isPutAway);
  const names = new Map(machines.map(({ id, name }) => [id, name]));
  const without = (id: number) => believed.filter((one) => one.id !== id).map(({ lessons }) => lessons);
  return {
    canGive: knowledge !== null && knowledge.fitted.trialCount > 0,
    taken: taken.map(({ lessons, ...rest }) => ({
      ...rest,
      trials: lessons.trials,
      sheets: lessons.sheets,
      isFitting: lessons.model === MODEL_VERSION,
      moved: listMoved([...without(rest.id), lessons], without(rest.id), machines, names),
    })),
  };
}

function listMoved(
  all: readonly Lessons[],
  others: readonly Lessons[],
  machines: Parameters<typeof believeLessons>[1],
  names: ReadonlyMap<number, string>,
): SharingReply['taken'][number]['moved'] {
  const before = new Map(believeLessons(others, machines).map((moved) => [moved.name, moved]));
  const stir = ({ name, mean, commonMean, commonSd }: MovedBelief) =>
    Math.abs(mean - (before.get(name)?.mean ?? commonMean)) / commonSd;
  return believeLessons(all, machines)
    .filter((moved) => stir(moved) >= LEAST_MOVED)
    .sort((a, b) => stir(b) - stir(a))
    .slice(0, MOST_LINES)
    .map((moved) => {
      const { name, mean, sd } = moved;
      const was = before.get(name) ?? { mean: moved.commonMean, sd: moved.commonSd };
      const [label, group] = labelOf(name, names);
      const factor = forceFactorOf(name, mean) / forceFactorOf(name, was.mean);
      return {
        name,
        label,
        factor: group === 'shape' ? null : factor,
        mean,
        sd,
        commonMean: was.mean,
        commonSd: was.sd,
      };
    });
}

export const getSharing = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/lessons',
  summary: 'What other workshops learnt and this one took in, with what each moved.',
  reply: sharingSchema,
  handle: (_, { store }) => describeSharing(store),
});

export const getOwnLessons = defineEndpoint({
  method: 'GET',
  role: 'owner',
  path: '/api/lessons/own',
  summary: 'What this book taught, to be given away: effects with their spreads, signed, without a name.',
  reply: signedLessonsSchema,
  handle: async (_, { store }) => {
    const [knowledge, priors, machines] = await Promise.all([
      findNewestKnowledge(store),
      findPriors(store),
      listMachines(store),
    ]);
    if (!knowledge || knowledge.fitted.trialCount === 0) {
      throw new AppError('conflict', 'This book taught nothing yet: there is nothing to give away.');
    }
    const kinds = new Map(machines.map(({ id, kind }) => [id, kind]));
    const lessons = takeLessons(knowledge.fitted, priors, kinds);
    const signed = signLessons(lessons, await signingKey(store));
    return Response.json(signed, {
      headers: { 'content-disposition': 'attachment; filename="pale-feather-lessons.json"' },
    });
  },
});

export const postLessons = defineEndpoint({
  method: 'POST',
  role: 'owner',
  path: '/api/lessons',
  summary: 'Takes in what another workshop learnt: beliefs to start from. Your own cuts outweigh them.',
  body: newLessonsSchema,
  maxBytes: MOST_BYTES,
  reply: sharingSchema,
  status: 201,
  handle: async ({ body: { name, signed }, author }, { store, afterwards }) => {
    const { lessons, giver } = openLessons(signed);
    if (giver === giverOf(await signingKey(store))) {
      throw new AppError('conflict', 'This is what your own book taught: it knows that already.');
    }
    await takeLessonsIn(store, { giver, name, lessons, author }, new Date());
    afterwards(requestRefit);
    return describeSharing(store);
  },
});

export const patchLessons = defineEndpoint({
  method: 'PATCH',
  role: 'owner',
  path: '/api/lessons/{id}',
  summary: 'Puts away what another workshop told, or believes it again.',
  params: z.object({ id: idParam }),
  body: z.object({ isPutAway: z.boolean() }),
  reply: sharingSchema,
  handle: async ({ params: { id }, body: { isPutAway } }, { store, afterwards }) => {
    await putLessonsAway(store, id, isPutAway, new Date());
    afterwards(requestRefit);
    return describeSharing(store);
  },
});
