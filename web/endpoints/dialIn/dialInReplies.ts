import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { onlyCell } from '#core/dialIn/testCard.ts';
import { cardParts, writeCardParts } from '#core/job/cardParts.ts';
import { writeCardSvg } from '#core/protocol/writeCard.ts';
import { findDialIn } from '#store/repositories/dialIn/dialIns.ts';
import { defineEndpoint, idParam, type EndpointContext } from '#web/http/defineEndpoint.ts';
import { drawTestCard } from '#web/endpoints/dialIn/drawTestCard.ts';
import { findDialInStation, readDialIn, questionDialIn } from '#web/endpoints/dialIn/readDialIn.ts';
import { replyWithFile, replyWithMachineFile, SVG_TYPE } from '#web/http/replyWithFile.ts';
import {
  effortReplySchema,
  pieceQuerySchema,
  reasonsReplySchema,
  waySchema,
  windowReplySchema,
} from '#web/schemas/dialIn.ts';
import { runTask } from '#web/workers/pool.ts';

const dialInParams = z.object({ id: idParam });

const MOST_SECONDS = 120;

/** What a thread answers about a search; who hangs up ends the work. */
async function askThread<Name extends 'window' | 'effort' | 'ways' | 'reasons'>(
  name: Name,
  id: number,
  { store, signal }: EndpointContext,
) {
  const question = await questionDialIn(store, await findDialIn(store, id));
  // A search of many cuts takes one fit for each to say what it moved.
  const lane = name === 'reasons' || name === 'ways' ? 'long' : 'quick';
  return runTask(name, question, { signal, seconds: MOST_SECONDS, lane });
}

export const getWindow = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/dial-ins/{id}/window',
  summary: 'The force window, and the chance of every grade at every force that matters.',
  params: dialInParams,
  reply: windowReplySchema,
  handle: ({ params }, context) => askThread('window', params.id, context),
});

export const getEffort = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/dial-ins/{id}/effort',
  summary: 'What cutting one at a time and a ladder card would cost from here, and which is advised.',
  params: dialInParams,
  reply: effortReplySchema,
  handle: ({ params }, context) => askThread('effort', params.id, context),
});

export const getWays = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/dial-ins/{id}/ways',
  summary: 'Other ways of cutting (passes, speed, blade, exposure) with what each would gain, by the model.',
  params: dialInParams,
  reply: z.array(waySchema).readonly(),
  handle: ({ params }, context) => askThread('ways', params.id, context),
});

export const getReasons = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/dial-ins/{id}/reasons',
  summary: 'What moved the answer, and by how much: family, layers, machine, other sheets, each cut.',
  params: dialInParams,
  reply: reasonsReplySchema,
  handle: ({ params }, context) => askThread('reasons', params.id, context),
});

export const getPiece = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/dial-ins/{id}/piece',
  summary:
    'The test piece or card at its place on the scrap: SVG at real size, machine file, or print guide.',
  params: dialInParams,
  query: pieceQuerySchema,
  reply: z.string().meta({ description: 'image/svg+xml or a machine file' }),
  handle: async ({ params, query }, { store }) => {
    const dialIn = await findDialIn(store, params.id);
    const [{ bench }, { station }] = await Promise.all([
      readDialIn(store, dialIn),
      findDialInStation(store, dialIn),
    ]);
    if (!bench.answer) throw new AppError('badInput', 'this sheet has no such cut');
    const { card: whole, values, scrap } = drawTestCard(dialIn, station, bench.answer, query);
    const card = query.cell === undefined ? whole : onlyCell(whole, query.cell - 1);
    if (query.format === 'hpgl' || query.format === 'machine') {
      const { machine } = station;
      const parts = cardParts(card, dialIn.operation, values, machine);
      const file = writeCardParts(card, parts, scrap.heightMm, machine);
      return replyWithMachineFile(file, machine.language, 'test-card', 'inline');
    }
    const svg = writeCardSvg(card, scrap, query.format === 'svg' ? 'cut' : 'guide');
    return replyWithFile(svg, SVG_TYPE, 'test-card.svg', 'inline');
  },
});
