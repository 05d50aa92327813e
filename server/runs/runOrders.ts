import { AppError } from '#core/errors/appError.ts';
import type { CutRole } from '#core/drawing/lineRoles.ts';
import { addRepeat } from '#core/program/runProgram.ts';
import type { Run } from '#core/run/run.ts';
import { findMachine } from '#store/repositories/machines.ts';
import { addRunStrokes, findProgress } from '#store/repositories/runProgress.ts';
import { addStrokeOutcome, findRun, moveRun, UNFINISHED } from '#store/repositories/runs.ts';
import type { ServerContext } from '#server/context.ts';
import { orderAtPanel } from '#server/links/cutterLink.ts';
import { findCutter } from '#server/links/findCutter.ts';
import { publishRunEvent } from '#server/runs/runHub.ts';
import { driveRun, findDrive, firstOpen } from '#server/runs/runDriver.ts';
import { enterState, finishRun, STOPPED_BY_HAND } from '#server/runs/runState.ts';

/** What a person says of the stroke that nobody knows of: it is cut again, or left as it is. */
export type OpenStroke = 'again' | 'leave';

/**
 * Goes on after hands are done, or after a person looked at a sheet that was held.
 *
 * @throws AppError `conflict` when the run waits for nothing
 */
export async function continueRun(runId: number, open: OpenStroke, context: ServerContext): Promise<void> {
  const run = await findRun(context.store, runId);
  const nothing = 'This run is not waiting for anything.';
  await moveRun(context.store, runId, ['waiting', 'held'], 'sending', nothing);
  if (run.state === 'held') {
    const { program, partIndex } = await findProgress(context.store, runId);
    const part = program.parts[partIndex];
    const next = part ? firstOpen(run, part) : null;
    if (open === 'leave' && next !== null) {
      await addStrokeOutcome(context.store, runId, { index: next, spans: [] });
    }
    // A person has looked: what the cutter remembers of the last sending counts no more.
    await addRunStrokes(context.store, runId, [], program, partIndex);
  }
  publishRunEvent(runId, { kind: 'state', state: 'sending', message: '' });
  void driveRun(runId, context);
}

/** Stops a run at the machine, or ends one that stands still. @throws AppError `conflict` when it is over */
export async function stopRun(runId: number, context: ServerContext): Promise<void> {
  const run = await findRun(context.store, runId);
  requireState(run, UNFINISHED, 'This run is over already.');
  const drive = findDrive(runId);
  if (!drive) return finishRun(context, runId, 'stopped', STOPPED_BY_HAND.message);
  drive.isStopped = true;
  await orderAtPanel(drive.address, { order: 'stop' });
}

/** Holds the blade between two strokes, or lets it go on. @throws AppError `conflict` when it is not cutting */
export async function pauseRun(runId: number, isPaused: boolean, context: ServerContext): Promise<void> {
  const run = await findRun(context.store, runId);
  const wanted = isPaused ? 'cutting' : 'paused';
  requireState(run, [wanted], isPaused ? 'This run is not cutting now.' : 'This run is not paused.');
  const address = findCutter(await findMachine(context.store, run.machineId), context.standIns);
  if (address.panelPort === null) {
    throw new AppError('conflict', 'This machine takes no orders from here: pause it at its own panel.');
  }
  await orderAtPanel(address, { order: isPaused ? 'pause' : 'resume' });
  await enterState(context, runId, isPaused ? 'paused' : 'cutting', '');
}

/**
 * Cuts the path of an operation once more while the sheet has not moved. No number is raised.
 *
 * @throws AppError `conflict` when the sheet is not in, `notFound` when the run has no such operation
 */
export async function repeatOperation(
  runId: number,
  operation: CutRole,
  context: ServerContext,
): Promise<void> {
  const run = await findRun(context.store, runId);
  const refusal = 'A path can be repeated only while the sheet is still in, after all is cut.';
  requireState(run, ['looking'], refusal);
  const { program } = await findProgress(context.store, runId);
  const more = addRepeat(program, run.strokes, operation);
  if (!more) throw new AppError('notFound', `this run has no ${operation} cut`);
  await moveRun(context.store, runId, ['looking'], 'sending', refusal);
  await addRunStrokes(context.store, runId, more.strokes, more.program, more.program.parts.length - 1);
  publishRunEvent(runId, { kind: 'state', state: 'sending', message: '' });
  void driveRun(runId, context);
}

/** The sheet is taken out: the run is done. @throws AppError `conflict` before all is cut */
export async function unloadRun(runId: number, context: ServerContext): Promise<void> {
  const run = await findRun(context.store, runId);
  requireState(run, ['looking'], 'This run is not at its end yet.');
  await finishRun(context, runId, 'done', '');
}

function requireState({ state }: Run, wanted: readonly Run['state'][], message: string): void {
  if (!wanted.includes(state)) throw new AppError('conflict', message);
}
