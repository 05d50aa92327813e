import { z } from 'zod';
import { purposeOf, type DialIn, type DialInScrap } from '#core/dialIn/dialIn.ts';
import { reserveJob } from '#core/job/reserveJob.ts';
import { AppError } from '#core/errors/appError.ts';
import { makeTestPiece, type SpotShape } from '#core/dialIn/testPiece.ts';
import type { LoadedStation } from '#core/station/station.ts';
import { requireLoaded } from '#core/station/requireLoaded.ts';
import { requireExposureInRange } from '#core/units/depthScale.ts';
import { snapForce } from '#core/units/forceScale.ts';
import {
  addGrades,
  changeDialIn,
  changeLastFlaws,
  findDialIn,
  listOpenDialIns,
  openDialIn,
  undoLastGrades,
} from '#store/repositories/dialIn/dialIns.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findJob } from '#store/repositories/jobs/jobs.ts';
import { spotSchema } from '#store/rows/dialInRows.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { describeCut } from '#web/endpoints/dialIn/describeCut.ts';
import { readAnswer } from '#web/endpoints/bench/readAnswer.ts';
import {
  findDialInStation,
  readDialIn,
  requireNoCard,
  type DialInStation,
} from '#web/endpoints/dialIn/readDialIn.ts';
import { reserveCard } from '#web/endpoints/dialIn/drawTestCard.ts';
import {
  dialInChangeSchema,
  dialInReplySchema,
  dialInSchema,
  flawsSeenSchema,
  gradesSchema,
  newCardSchema,
  newDialInSchema,
} from '#web/schemas/dialIn.ts';
import { runTask } from '#web/workers/pool.ts';
import { requestRefit } from '#web/workers/refitKnowledge.ts';

const dialInParams = z.object({ id: idParam });
/** A corner of a sheet that most workshops have lying about, mm. */
const USUAL_SCRAP = { widthMm: 150, heightMm: 100, piece: 'square', taken: [] } as const;

export const getDialIns = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/dial-ins',
  summary: 'Searches for a setting that are still open, the last touched first.',
  query: z.object({ machineId: idParam.optional() }),
  reply: z.array(dialInSchema).readonly(),
  handle: ({ query }, { store }) => listOpenDialIns(store, query.machineId ?? null),
});

export const postDialIn = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/dial-ins',
  summary: 'Opens a search for the loaded sheet, or joins the open one for the same sheet and operation.',
  body: newDialInSchema,
  reply: dialInReplySchema,
  status: 201,
  about: ({ body }) => `stations/${body.machineId}`,
  handle: async ({ body, author }, { store }) => {
    const station = requireLoaded(await findStation(store, body.machineId));
    const { loaded, machine } = station;
    const { answer } = await readAnswer(store, station, body.operation, { passes: body.passes ?? null });
    if (!answer) throw new AppError('badInput', `this sheet has no ${body.operation} cut`);
    const { passes, speed, exposureMm } = answer.values;
    const rest = loaded.material.details.remnants.find(({ takenMm }) => takenMm === undefined);
    const scrap = rest ? { ...USUAL_SCRAP, widthMm: rest.widthMm, heightMm: rest.heightMm } : USUAL_SCRAP;
    const given = {
      machineId: machine.id,
      conditionId: loaded.condition.id,
      lot: loaded.lot,
      colour: loaded.colour,
      operation: body.operation,
      passes,
      speed,
      exposureMm,
      scrap,
      author,
    };
    return readDialIn(store, await openDialIn(store, given, new Date()));
  },
});

export const getDialIn = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/dial-ins/{id}',
  summary: 'A search: its cuts, the window they leave, and what to cut next (one force, or a card).',
  params: dialInParams,
  reply: dialInReplySchema,
  handle: async ({ params }, { store }) => readDialIn(store, await findDialIn(store, params.id)),
});

export const patchDialIn = defineEndpoint({
  method: 'PATCH',
  role: 'operator',
  path: '/api/dial-ins/{id}',
  summary: 'Changes passes, speed, exposure or the scrap of an open search; what is not named stays.',
  params: dialInParams,
  body: dialInChangeSchema,
  reply: dialInReplySchema,
  handle: async ({ params, body }, { store }) => {
    const dialIn = await findDialIn(store, params.id);
    const { station } = await findDialInStation(store, dialIn);
    const { version, scrap, isScrapNew, jobId, spotJobId, ...change } = body;
    if (change.exposureMm) requireExposureInRange(change.exposureMm, station.machine.depthScale);
    const job = jobId ? reserveFor(await findJob(store, jobId), station) : null;
    const isOther = scrap !== undefined || isScrapNew === true;
    const changed = isOther ? mergeScrap(dialIn.scrap, scrap ?? {}, isScrapNew ?? false) : undefined;
    const where = job ? { ...dialIn.scrap, ...job } : changed;
    const spot = spotJobId ? await findSpot(store, spotJobId) : null;
    const whole = spot ? { ...(where ?? dialIn.scrap), piece: 'spot' as const, spot } : where;
    if (whole?.piece === 'spot') makeTestPiece('spot', undefined, whole.spot);
    return readDialIn(
      store,
      await changeDialIn(store, params.id, version, { ...change, scrap: whole }, new Date()),
    );
  },
});

/** The free corner of a job for a test of the state that is loaded. */
function reserveFor(job: Parameters<typeof reserveJob>[0], { machine, loaded }: LoadedStation) {
  return reserveJob(job, machine, loaded.condition.stack);
}

/** The finest spot of what a job cuts. @throws AppError `badInput` for a job without cut lines, or too fine a spot */
async function findSpot(store: Store, jobId: number): Promise<SpotShape> {
  const job = await findJob(store, jobId);
  const spot = await runTask('findSpot', job);
  if (!spot)
    throw new AppError('badInput', `${job.name} has no line that is cut: give its lines roles first`);
  const { error } = spotSchema.safeParse(spot);
  if (error) throw new AppError('badInput', `${job.name}: ${error.issues[0]?.message ?? 'no test piece'}`);
  return spot;
}

export const postCard = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/dial-ins/{id}/cards',
  summary:
    'Lays a card (several forces side by side in one load) on the scrap; it then waits for its grades.',
  params: dialInParams,
  body: newCardSchema,
  reply: dialInReplySchema,
  status: 201,
  handle: async ({ params, body }, { store }) => {
    const dialIn = await findDialIn(store, params.id);
    requireNoCard(dialIn);
    const at = await findDialInStation(store, dialIn);
    const { station } = at;
    const { bench } = await readDialIn(store, dialIn, at);
    const wanted = body.forces ?? bench.answer?.ladder ?? [];
    const forces = [...new Set(wanted.map((force) => snapForce(force, station.machine.forceScale)))];
    const load = dialIn.loadCount + 1;
    const card = { load, purpose: purposeOf(forces), forces };
    const scrap = reserveCard(dialIn, station, forces.length);
    const changed = await changeDialIn(store, params.id, body.version, { card, scrap }, new Date());
    return readDialIn(store, changed);
  },
});

export const deleteCard = defineEndpoint({
  method: 'DELETE',
  role: 'operator',
  path: '/api/dial-ins/{id}/cards/{load}',
  summary: 'Puts a waiting card away ungraded. Grades already given stay.',
  params: z.object({ id: idParam, load: idParam }),
  reply: dialInReplySchema,
  handle: async ({ params }, { store }) => {
    const dialIn = await findDialIn(store, params.id);
    if (dialIn.card?.load !== params.load)
      throw new AppError('notFound', `card ${params.load} does not wait for grades`);
    return readDialIn(
      store,
      await changeDialIn(store, params.id, dialIn.version, { card: null }, new Date()),
    );
  },
});

export const postGrades = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/dial-ins/{id}/grades',
  summary:
    'Records grades, all or none: of a cut of its own (force) or of cells of the waiting card (load, cell).',
  params: dialInParams,
  body: gradesSchema,
  reply: dialInReplySchema,
  status: 201,
  handle: async ({ params, body, author }, context) => {
    const { store } = context;
    const load = body.load ?? null;
    let at: DialInStation | undefined;
    const describe = async (dialIn: DialIn) => {
      at = await findDialInStation(store, dialIn);
      const { station } = at;
      const { operation, passes, speed, exposureMm } = dialIn;
      return body.grades.map(({ force: own, cell, grade, upTo, flaws }) => {
        const force = load === null ? own : dialIn.card?.forces[cell ?? -1];
        if (force === undefined) throw new AppError('badInput', describeMissing(load, cell));
        const given = { operation, force, passes, speed, exposureMm, grade, upTo, flaws, author };
        return { cut: describeCut(station, given), cell: load === null ? null : (cell ?? null) };
      });
    };
    const graded = await addGrades(store, params.id, load, describe, new Date());
    context.afterwards(requestRefit);
    return readDialIn(store, graded, at);
  },
});

function mergeScrap(
  before: DialInScrap,
  change: { readonly [Field in 'widthMm' | 'heightMm' | 'piece']?: DialInScrap[Field] | undefined },
  isNew: boolean,
): DialInScrap {
  return {
    ...before,
    widthMm: change.widthMm ?? before.widthMm,
    heightMm: change.heightMm ?? before.heightMm,
    piece: change.piece ?? before.piece,
    taken: isNew ? [] : before.taken,
  };
}

function describeMissing(load: number | null, cell: number | undefined): string {
  if (load === null) return 'a cut of its own needs its force';
  return cell === undefined ? 'a grade on a card needs its cell' : `card ${load} has no cell ${cell + 1}`;
}

export const deleteLastGrades = defineEndpoint({
  method: 'DELETE',
  role: 'operator',
  path: '/api/dial-ins/{id}/grades/last',
  summary: 'Takes the last grade back, or those of the last card, which then waits again.',
  params: dialInParams,
  reply: dialInReplySchema,
  handle: async ({ params }, context) => {
    await undoLastGrades(context.store, params.id, new Date());
    context.afterwards(requestRefit);
    return readDialIn(context.store, await findDialIn(context.store, params.id));
  },
});

export const patchLastGrade = defineEndpoint({
  method: 'PATCH',
  role: 'operator',
  path: '/api/dial-ins/{id}/grades/last',
  summary: 'Says what flaws the last cut left; its depth stays as it was graded.',
  params: dialInParams,
  body: flawsSeenSchema,
  reply: dialInReplySchema,
  handle: async ({ params, body }, context) => {
    await changeLastFlaws(context.store, params.id, body, new Date());
    context.afterwards(requestRefit);
    return readDialIn(context.store, await findDialIn(context.store, params.id));
  },
});

export const postClose = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/dial-ins/{id}/close',
  summary: 'Gives a search up. Its cuts stay as evidence.',
  params: dialInParams,
  reply: dialInSchema,
  handle: async ({ params }, { store }) => {
    const { version } = await findDialIn(store, params.id);
    return changeDialIn(store, params.id, version, { state: 'closed', card: null }, new Date());
  },
});
