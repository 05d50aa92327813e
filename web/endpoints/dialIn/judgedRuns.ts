import { z } from 'zod';
import { describeTestRun } from '#web/endpoints/dialIn/describeTestRun.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import { requireLoaded } from '#core/station/requireLoaded.ts';
import { findLink } from '#server/links/findLink.ts';
import { readRun } from '#server/runs/readRun.ts';
import { driveRun } from '#server/runs/runLoop.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { findJudgedJob, findNewestJudgedRun } from '#store/repositories/dialIn/testRuns.ts';
import { addJob } from '#store/repositories/jobs/jobs.ts';
import { startRun } from '#store/repositories/runs/runs.ts';
import { drawJudgedPiece } from '#web/endpoints/dialIn/drawJudgedPiece.ts';
import { takeOutLast } from '#web/endpoints/dialIn/takeOutLast.ts';
import { canPause } from '#web/endpoints/runs/canPause.ts';
import { defineEndpoint, idParam, type EndpointContext } from '#web/http/defineEndpoint.ts';
import { judgedPieceQuerySchema, judgedRunReplySchema, quantitySchema } from '#web/schemas/judgedPieces.ts';
import { requestKeySchema } from '#web/schemas/run.ts';

const at = z.object({ machineId: idParam, quantity: quantitySchema });

/** What hands at a stand-in find of the sheet that lies in it. */
const handledSchema = z.object({ held: z.number().nullable(), folded: z.number().nullable() });

export const getJudgedRun = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/stations/{machineId}/judged/{quantity}/runs',
  summary:
    'The piece that was last cut on the machine to be judged, and what hands at a stand-in find of it.',
  params: at,
  reply: judgedRunReplySchema,
  handle: async ({ params: { machineId, quantity } }, context) => {
    const { store } = context;
    const { loaded, machine } = requireLoaded(await findStation(store, machineId));
    const newest = await findNewestJudgedRun(store, machineId, loaded.condition.id, quantity);
    // Out of the machine, another sheet may lie there.
    const handled = newest?.state === 'looking' ? await handle(machine, context) : NOTHING_FOUND;
    return {
      run: newest && (await readRun(store, newest.id)),
      canPause: canPause(machine),
      seen: quantity === 'tabs' ? handled.held : handled.folded,
    };
  },
});

const NOTHING_FOUND = { held: null, folded: null };

/** What hands at the machine find of its sheet; nothing where it has none, or does not answer. */
async function handle(machine: Machine, context: EndpointContext): Promise<z.infer<typeof handledSchema>> {
  if (machine.link.kind !== 'standIn') return NOTHING_FOUND;
  try {
    return handledSchema.parse(await findLink(machine, context).hands?.order({ order: 'handle' }));
  } catch {
    return NOTHING_FOUND;
  }
}

export const postJudgedRun = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'own',
  path: '/api/stations/{machineId}/judged/{quantity}/runs',
  summary:
    'Cuts a perforated piece of the real size, or presses a crease, on the machine. What lies there from the piece before is taken out first. Watch it under /api/runs/{id}/events.',
  params: at,
  body: judgedPieceQuerySchema.omit({ format: true }).extend({ requestKey: requestKeySchema }),
  reply: z.object({ id: z.number() }),
  status: 201,
  handle: async ({ params: { machineId, quantity }, body, author }, context) => {
    const { store } = context;
    const station = requireLoaded(await findStation(store, machineId));
    const { loaded, machine } = station;
    const { requestKey, ...asked } = body;
    const { card, sheet, values } = await drawJudgedPiece(store, station, quantity, asked);
    await findLink(machine, context).hands?.order({ order: 'status' });
    const last = await findNewestJudgedRun(store, machineId, loaded.condition.id, quantity);
    await takeOutLast(last, requestKey, context, author);
    const role = quantity === 'tabs' ? 'perforated' : 'crease';
    const { run, job } = describeTestRun(station, {
      card,
      role,
      values,
      sheet,
      name: `${quantity === 'tabs' ? 'Perforated piece' : 'Crease'} of ${nameCondition(loaded.material.name, loaded.condition.kind)}`,
    });
    return context.once(async (inOne) => {
      const known = await findJudgedJob(inOne, machineId, loaded.condition.id, quantity);
      const jobId = known ?? (await addJob(inOne, { ...job, judged: quantity }, new Date()));
      const { id, isNew } = await startRun(inOne, { ...run, jobId, author, requestKey }, new Date());
      if (isNew) context.afterwards((server) => void driveRun(id, server));
      return { id };
    });
  },
});
