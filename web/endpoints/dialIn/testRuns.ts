import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { snapForce } from '#core/units/forceScale.ts';
import { findLink } from '#server/links/findLink.ts';
import { readRun } from '#server/runs/readRun.ts';
import { driveRun } from '#server/runs/runLoop.ts';
import { changeDialIn, findDialIn } from '#store/repositories/dialIn/dialIns.ts';
import { findNewestTestRun, findTestJob } from '#store/repositories/dialIn/testRuns.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import { addJob } from '#store/repositories/jobs/jobs.ts';
import { startRun } from '#store/repositories/runs/runs.ts';
import { describeTestRun } from '#web/endpoints/dialIn/describeTestRun.ts';
import { drawTestCard } from '#web/endpoints/dialIn/drawTestCard.ts';
import { findDialInStation, readDialIn, requireNoCard } from '#web/endpoints/dialIn/readDialIn.ts';
import { canPause } from '#web/endpoints/runs/canPause.ts';
import { takeOutLast } from '#web/endpoints/dialIn/takeOutLast.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { testRunReplySchema } from '#web/schemas/dialIn.ts';
import { requestKeySchema } from '#web/schemas/run.ts';

const dialInParams = z.object({ id: idParam });

export const getTestRun = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/dial-ins/{id}/runs',
  summary: 'What was last cut on the machine for a search, and what was seen of it.',
  params: dialInParams,
  reply: testRunReplySchema,
  handle: async ({ params }, { store }) => {
    const [newest, { machineId }] = await Promise.all([
      findNewestTestRun(store, params.id),
      findDialIn(store, params.id),
    ]);
    const machine = await findMachine(store, machineId);
    return {
      run: newest && (await readRun(store, newest.id)),
      canPause: canPause(machine),
    };
  },
});

export const postTestRun = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'own',
  path: '/api/dial-ins/{id}/runs',
  summary:
    'Cuts the card that waits, or one piece at a force, on the machine. What lies there from the cut before is taken out first. Watch it under /api/runs/{id}/events.',
  params: dialInParams,
  body: z.object({
    requestKey: requestKeySchema,
    force: z.number().optional().meta({
      description: 'of one piece, on the machine scale; left out, the card that waits is cut',
    }),
  }),
  reply: z.object({ id: z.number() }),
  status: 201,
  handle: async ({ params, body, author }, context) => {
    const { store } = context;
    const dialIn = await findDialIn(store, params.id);
    const at = await findDialInStation(store, dialIn);
    const { station, isLoaded } = at;
    const { bench, sheet } = await readDialIn(store, dialIn, at);
    if (!isLoaded) {
      throw new AppError(
        'conflict',
        `Load ${sheet} at ${station.machine.name} first: another sheet lies there.`,
      );
    }
    if (!bench.answer) throw new AppError('badInput', 'this sheet has no such cut');
    const { force } = body;
    const isOwn = force !== undefined;
    if (!isOwn && !dialIn.card) throw new AppError('badInput', 'no card waits: name the force of one piece');
    if (isOwn) requireNoCard(dialIn);
    const { card, values } = drawTestCard(dialIn, station, bench.answer, {
      vary: 'force',
      card: isOwn ? 'next' : 'waiting',
      ...(isOwn ? { force: snapForce(force, station.machine.forceScale) } : {}),
    });
    await findLink(station.machine, context).hands?.order({ order: 'status' });
    await takeOutLast(await findNewestTestRun(store, params.id), body.requestKey, context, author);
    const { scrap } = dialIn;
    const { run, job } = describeTestRun(station, {
      card,
      role: dialIn.operation,
      values,
      sheet: scrap,
      name: `Test cut of ${sheet}`,
    });
    return context.once(async (inOne) => {
      const jobId =
        (await findTestJob(inOne, dialIn.id)) ??
        (await addJob(inOne, { ...job, dialInId: dialIn.id }, new Date()));
      const started = { ...run, jobId, author, requestKey: body.requestKey };
      const { id, isNew } = await startRun(inOne, started, new Date());
      if (!isNew) return { id };
      if (isOwn) {
        const taken = [...scrap.taken, card.box];
        await changeDialIn(inOne, dialIn.id, dialIn.version, { scrap: { ...scrap, taken } }, new Date());
      }
      context.afterwards((server) => void driveRun(id, server));
      return { id };
    });
  },
});
