import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { MessageChannel } from 'node:worker_threads';
import type { FitProgress } from '#core/knowledge/fitKnowledge.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import { readBookEvidence } from '#store/repositories/dialIn/evidence.ts';
import { addKnowledge, findNewestKnowledge, findPriors } from '#store/repositories/dialIn/knowledge.ts';
import { askRefit, claimRefit, releaseRefit, renewRefit } from '#store/repositories/several/refits.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { watchDrift } from '#web/endpoints/upkeep/watchDrift.ts';
import type { ServerContext } from '#server/context/context.ts';
import { runTask } from '#web/workers/pool.ts';
import type { BookToFit, FitOrder, LearntSlowly } from '#web/workers/tasks/fitBookTask.ts';

/** Where the fit of the book stands. */
export interface RefitStatus {
  readonly state: 'idle' | 'waiting' | 'running';
  readonly iteration: number;
  readonly trialCount: number;
  /** Why the last fit ended without a result, or empty. */
  readonly problem: string;
}

/** Grades come in handfuls: the book is fitted anew when none has come for this long. */
const QUIET_MS = 700;
/**
 * Where many work at once it is never quiet: then it is fitted this long after the first of them, ms. A sheet's own cuts
 * count in its answers at once; what they teach of others makes every answer be reckoned anew, and may wait.
 */
const LATEST_MS = 30_000;
/** While another server fits the book, it is asked so often whether it is done, ms; and who fits says so often that it is. */
const ASK_AGAIN_MS = 400;
const SELF = randomUUID();
const RENEW_MS = 4_000;
/** A fit that takes longer is stopped; what was known before stays. */
const MOST_FIT_SECONDS = 600;

let status: RefitStatus = { state: 'idle', iteration: 0, trialCount: 0, problem: '' };
let timer: NodeJS.Timeout | null = null;
/** When the first of what is waited for was asked, by this process's own clock. */
let waitingSince: number | null = null;
let fitting: AbortController | null = null;
let going: Promise<number | null> | null = null;
let next: Promise<number | null> | null = null;
/** How much sheets differ is learnt behind everybody's back: a score of fits, which nobody waits for. */
let learning: AbortController | null = null;
let learnt: LearntSlowly | null = null;

/** Spreads are learnt anew when the book has grown by this share since they were learnt last. */
const GROWN = 0.25;

export function refitStatus(): RefitStatus {
  return status;
}

/** Has the book fitted soon, once for all that happens until then. */
export function requestRefit(context: ServerContext): void {
  const since = waitingSince ?? performance.now();
  cancelRequest();
  waitingSince = since;
  if (!going) status = { ...status, state: 'waiting' };
  const latest = Math.max(0, since + LATEST_MS - performance.now());
  timer = setTimeout(
    () => {
      timer = null;
      void refitNow(context).catch((error: unknown) =>
        context.log.error({ error }, 'the book was not fitted'),
      );
    },
    Math.min(QUIET_MS, latest),
  );
  timer.unref();
}

/** What was asked for is done by the fit that begins now, or not at all. */
function cancelRequest(): void {
  if (timer) clearTimeout(timer);
  timer = null;
  waitingSince = null;
}

/**
 * Fits the book in a thread. Whoever asks while a fit is under way waits for one that begins after it, all for the same.
 *
 * @returns the id of the new knowledge, `null` when it was stopped
 */
export function refitNow(context: ServerContext): Promise<number | null> {
  cancelRequest();
  if (!going) return startFit(context);
  next ??= going
    .catch(() => null)
    .then(() => {
      next = null;
      return startFit(context);
    });
  return next;
}

function startFit(context: ServerContext): Promise<number | null> {
  const fit = fitBook(context).finally(() => {
    if (going === fit) going = null;
    status = { ...status, state: timer ? 'waiting' : 'idle' };
  });
  going = fit;
  return fit;
}

/** Stops a fit under way. What was known before stays. */
export async function stopRefit(): Promise<void> {
  cancelRequest();
  fitting?.abort();
  learning?.abort();
  await going?.catch(() => null);
  status = { ...status, state: 'idle', problem: 'stopped; what was known before stays' };
}

/**
 * Fits the book, or leaves it to another server of this store that is at it: what several ask for in the same moment is
 * done once, for all of them.
 */
async function fitBook(context: ServerContext): Promise<number | null> {
  const { store } = context;
  const waiting = new AbortController();
  fitting = waiting;
  const asked = await askRefit(store);
  while (!waiting.signal.aborted) {
    const claim = await claimRefit(store, SELF);
    if (!claim) {
      await pause(ASK_AGAIN_MS);
      continue;
    }
    if (claim.done >= asked) {
      await releaseRefit(store, SELF);
      return (await findNewestKnowledge(store))?.id ?? null;
    }
    const stillAtIt = setInterval(() => void renewRefit(store, SELF).catch(() => undefined), RENEW_MS);
    let id: number | null = null;
    try {
      id = await fitHere(context);
      return id;
    } finally {
      clearInterval(stillAtIt);
      await releaseRefit(store, SELF, id === null ? 0 : claim.asked);
    }
  }
  return null;
}

async function fitHere(context: ServerContext): Promise<number | null> {
  const { store, log } = context;
  const [{ sheets, lastCutId }, priors, before] = await Promise.all([
    readBookEvidence(store),
    findPriors(store),
    findNewestKnowledge(store),
  ]);
  const trialCount = sheets.reduce((sum, sheet) => sum + sheet.trials.length, 0);
  status = { state: 'running', iteration: 0, trialCount, problem: '' };
  const started = performance.now();
  const start = before?.fitted ?? null;
  // Taken before the fit: what is learnt while it runs waits for the next one.
  const { spreads, shift } = learnt ?? { spreads: start?.spreads ?? null, shift: start?.shift };
  learnt = null;
  const fitted = await runFit({ sheets, priors, start, spreads, shift });
  if (!fitted) return null;
  const milliseconds = performance.now() - started;
  const id = await addKnowledge(store, { fitted, lastCutId, milliseconds }, new Date());
  watchSoon(context);
  log.info({ id, trials: fitted.trialCount, milliseconds: Math.round(milliseconds) }, 'book fitted');
  if (isDue(fitted)) void learnLater(context, { sheets, priors, fitted });
  return id;
}

/** Whether the book has grown so much since the spreads were learnt that they are learnt anew. */
function isDue({ spreads, shift, trialCount }: Knowledge): boolean {
  return !spreads || !shift || trialCount > spreads.trialCount * (1 + GROWN);
}

/** Learns how much sheets differ, and has the book fitted with it. One at a time; a failure leaves what was known. */
async function learnLater(
  context: ServerContext,
  book: BookToFit & { readonly fitted: Knowledge },
): Promise<void> {
  if (learning) return;
  learning = new AbortController();
  try {
    const options = { signal: learning.signal, seconds: MOST_FIT_SECONDS, lane: 'learn' as const };
    const found = await runTask('learnSpreads', book, options);
    if (!found) return;
    learnt = found;
    requestRefit(context);
  } catch (error) {
    context.log.error({ error }, 'how much sheets differ was not learnt');
  } finally {
    learning = null;
  }
}

let watched: Promise<void> = Promise.resolve();

/**
 * Compares what was cut with what was expected of it, behind whoever kept a setting: after each fit, and at a start for
 * what was cut while nobody watched.
 */
export function watchSoon({ store, log }: ServerContext): void {
  watched = watched
    .then(() => watchAll(store))
    .catch((error: unknown) => log.error({ error }, 'drift was not watched'));
}

/** Ends when all that was fitted until now is compared. */
export function untilWatched(): Promise<void> {
  return watched;
}

/** New cuts are compared with what was expected of them, on every machine. */
async function watchAll(store: ServerContext['store']): Promise<void> {
  for (const { id } of await listMachines(store)) await watchDrift(store, id, new Date());
}

/** Fits in a thread. @returns `null` when it was stopped */
async function runFit(order: Omit<FitOrder, 'port'>): Promise<Knowledge | null> {
  const { port1, port2 } = new MessageChannel();
  const stop = new AbortController();
  fitting = stop;
  port1.on('message', ({ iteration }: FitProgress) => (status = { ...status, iteration }));
  try {
    const options = {
      signal: stop.signal,
      transferList: [port2],
      seconds: MOST_FIT_SECONDS,
      lane: 'fit' as const,
    };
    return await runTask('fitBook', { ...order, port: port2 }, options);
  } catch (error) {
    if (stop.signal.aborted) return null;
    status = { ...status, problem: error instanceof Error ? error.message : String(error) };
    throw error;
  } finally {
    fitting = null;
    port1.close();
  }
}
