import { AppError } from '#core/errors/appError.ts';
import type { Run } from '#core/run/run.ts';
import { spanOfPart, type ProgramPart } from '#core/program/runProgram.ts';
import { findMachine } from '#store/repositories/machines.ts';
import {
  enterPart,
  findProgress,
  listDrivenRuns,
  type RunProgress,
} from '#store/repositories/runProgress.ts';
import { findRun } from '#store/repositories/runs.ts';
import type { ServerContext } from '#server/context.ts';
import { findCutter } from '#server/links/findCutter.ts';
import { reconcileRun } from '#server/runs/reconcileRun.ts';
import { enterState, finishRun, STOPPED_BY_HAND, type Drive, type Halt } from '#server/runs/runState.ts';
import { transmitPart } from '#server/runs/transmitPart.ts';

/** The store is gone: how often and how far apart it is asked again. */
const STORE_TRIES = 600;
const STORE_PAUSE_MS = 500;

const driven = new Map<number, Drive>();

/** The drive of a run on this server, or `null` when nothing is under way. */
export function findDrive(runId: number): Drive | null {
  return driven.get(runId) ?? null;
}

/**
 * Drives a run from where it is: to its next stop for hands, until it is held, or to its end. What was acknowledged is
 * never sent again. Never rejects; a store that is gone is asked again until it is back.
 */
export async function driveRun(runId: number, context: ServerContext): Promise<void> {
  if (driven.has(runId)) return;
  let drive: Drive | null = null;
  try {
    const { machineId } = await insist(context, () => findRun(context.store, runId));
    const machine = await insist(context, () => findMachine(context.store, machineId));
    drive = { runId, address: findCutter(machine, context.standIns), context, isStopped: false };
    if (driven.has(runId)) return;
    driven.set(runId, drive);
    const own = drive;
    await insist(context, () => goOn(own));
  } catch (error) {
    context.log.error({ err: error, runId }, 'run cannot go on');
    const message = error instanceof AppError ? error.message : 'The server failed during this run.';
    await insist(context, () => enterState(context, runId, 'held', message)).catch(() => undefined);
  } finally {
    if (drive && driven.get(runId) === drive) driven.delete(runId);
  }
}

/** Takes up the runs that were under way when the server stopped. Returns how many. */
export async function resumeRuns(context: ServerContext): Promise<number> {
  const ids = await listDrivenRuns(context.store);
  for (const id of ids) void driveRun(id, context);
  return ids.length;
}

async function goOn(drive: Drive): Promise<void> {
  const { runId, context } = drive;
  const { store } = context;
  for (;;) {
    const [run, progress] = [await findRun(store, runId), await findProgress(store, runId)];
    const part = progress.program.parts[progress.partIndex];
    if (!part) return enterState(context, runId, 'looking', '');
    const next = firstOpen(run, part);
    if (next === null) {
      if (await leavePart(drive, progress)) return;
      continue;
    }
    const halt =
      (progress.sentKey ? await reconcileRun(drive, run, progress) : null) ??
      (await transmitOpen(drive, part, progress));
    if (halt?.kind === 'held') return enterState(context, runId, 'held', halt.message);
    if (halt) return finishRun(context, runId, 'stopped', halt.message);
  }
}

/** Sends what is open after the cutter was asked what it did. */
async function transmitOpen(drive: Drive, part: ProgramPart, progress: RunProgress): Promise<Halt | null> {
  if (drive.isStopped) return STOPPED_BY_HAND;
  const run = await findRun(drive.context.store, drive.runId);
  const next = firstOpen(run, part);
  return next === null ? null : transmitPart(drive, run, part, next, progress);
}

/** @returns true when the run now waits for hands, or for a look */
async function leavePart({ runId, context }: Drive, { program, partIndex }: RunProgress): Promise<boolean> {
  await enterPart(context.store, runId, partIndex + 1);
  const following = program.parts[partIndex + 1];
  if (!following) {
    await enterState(context, runId, 'looking', '');
    return true;
  }
  if (following.before === null) return false;
  await enterState(context, runId, 'waiting', following.before);
  return true;
}

/** The first stroke of a part that nobody acknowledged, or `null`. */
export function firstOpen({ outcomes }: Pick<Run, 'outcomes'>, part: ProgramPart): number | null {
  const known = new Set(outcomes.map(({ index }) => index));
  const { from, to } = spanOfPart(part);
  for (let index = from; index < to; index++) if (!known.has(index)) return index;
  return null;
}

/** Does it, and again while the store is away. Errors of our own, and mistakes in the program, are not the store's. */
async function insist<T>(context: ServerContext, act: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await act();
    } catch (error) {
      if (!isOfStore(error) || tries >= STORE_TRIES) throw error;
      if (tries === 1) context.log.warn({ err: error }, 'the store is away; trying again');
      await new Promise((resolve) => setTimeout(resolve, STORE_PAUSE_MS));
    }
  }
}

/** What the database and its link throw carries a code of theirs, or comes from a pool that waited in vain. */
function isOfStore(error: unknown): boolean {
  if (!(error instanceof Error) || error instanceof AppError) return false;
  return 'code' in error || error.name === 'KnexTimeoutError';
}
