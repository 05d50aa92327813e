import type { Worker } from 'node:worker_threads';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import { readBookEvidence } from '#store/repositories/evidence.ts';
import { addKnowledge, findNewestKnowledge, findPriors } from '#store/repositories/knowledge.ts';
import { listMachines } from '#store/repositories/machines.ts';
import { watchDrift } from '#web/endpoints/watchDrift.ts';
import type { ServerContext } from '#server/context/context.ts';
import { startThread } from '#web/workers/startThread.ts';
import type { FitOrder } from '#web/workers/fitKnowledge.ts';

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

let status: RefitStatus = { state: 'idle', iteration: 0, trialCount: 0, problem: '' };
let timer: NodeJS.Timeout | null = null;
let worker: Worker | null = null;
let going: Promise<number | null> | null = null;

export function refitStatus(): RefitStatus {
  return status;
}

/** Has the book fitted soon, once for all that happens until then. */
export function requestRefit(context: ServerContext): void {
  cancelRequest();
  if (!going) status = { ...status, state: 'waiting' };
  timer = setTimeout(() => {
    timer = null;
    void refitNow(context).catch((error: unknown) => context.log.error({ error }, 'the book was not fitted'));
  }, QUIET_MS);
  timer.unref();
}

/** What was asked for is done by the fit that begins now, or not at all. */
function cancelRequest(): void {
  if (timer) clearTimeout(timer);
  timer = null;
}

/** Fits the book in a thread of its own. @returns the id of the new knowledge, `null` when it was stopped */
export async function refitNow(context: ServerContext): Promise<number | null> {
  cancelRequest();
  while (going) await going.catch(() => null);
  going = fitBook(context);
  try {
    return await going;
  } finally {
    going = null;
    status = { ...status, state: timer ? 'waiting' : 'idle' };
  }
}

/** Stops a fit under way. What was known before stays. */
export async function stopRefit(): Promise<void> {
  cancelRequest();
  await worker?.terminate();
  status = { ...status, state: 'idle', problem: 'stopped; what was known before stays' };
}

async function fitBook({ store, log }: ServerContext): Promise<number | null> {
  const [{ sheets, lastCutId }, priors, before] = await Promise.all([
    readBookEvidence(store),
    findPriors(store),
    findNewestKnowledge(store),
  ]);
  const trialCount = sheets.reduce((sum, sheet) => sum + sheet.trials.length, 0);
  status = { state: 'running', iteration: 0, trialCount, problem: '' };
  const started = performance.now();
  const fitted = await runWorker({ sheets, priors, start: before?.fitted ?? null });
  if (!fitted) return null;
  const milliseconds = performance.now() - started;
  const id = await addKnowledge(store, { fitted, lastCutId, milliseconds }, new Date());
  await watchAll(store).catch((error: unknown) => log.error({ error }, 'drift was not watched'));
  log.info({ id, trials: fitted.trialCount, milliseconds: Math.round(milliseconds) }, 'book fitted');
  return id;
}

/** New cuts are compared with what was expected of them, on every machine. */
async function watchAll(store: ServerContext['store']): Promise<void> {
  for (const { id } of await listMachines(store)) await watchDrift(store, id, new Date());
}

function runWorker(order: FitOrder): Promise<Knowledge | null> {
  return new Promise((resolve, reject) => {
    const thread = startThread('web/workers/fitKnowledge.ts', order);
    worker = thread;
    let fitted: Knowledge | null = null;
    thread.on('message', (message: { progress?: { iteration: number }; fitted?: Knowledge }) => {
      if (message.progress) status = { ...status, iteration: message.progress.iteration };
      if (message.fitted) fitted = message.fitted;
    });
    thread.on('error', (error) => {
      status = { ...status, problem: error.message };
      reject(error);
    });
    thread.on('exit', () => {
      worker = null;
      resolve(fitted);
    });
  });
}
