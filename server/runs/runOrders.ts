import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import type { RunState } from '#core/run/run.ts';
import type { ServerContext } from '#server/context/context.ts';
import { findLive } from '#server/runs/live.ts';
import type { OpenStroke } from '#server/runs/ordersHere.ts';
import { atDriver } from '#server/several/atDriver.ts';

/**
 * Goes on after hands are done, or after a person looked at a sheet that was held.
 *
 * @throws AppError `conflict` when the run waits for nothing
 */
export async function continueRun(
  runId: number,
  open: OpenStroke,
  context: ServerContext,
  author = '',
): Promise<void> {
  await atDriver(context, { runId, author, wanted: { kind: 'continue', open } });
}

/**
 * Stops a run. From this moment nothing more is sent; the answer comes when it stands still.
 *
 * @returns the state it came to: `stopped`, or `held` where the machine cannot be told from here
 * @throws AppError `conflict` when it is over
 */
export async function stopRun(runId: number, context: ServerContext, author = ''): Promise<RunState> {
  // What goes out from here is stopped before anything is asked.
  findLive(runId)?.halt();
  return atDriver(context, { runId, author, wanted: { kind: 'stop' } });
}

/** Holds the blade, or lets it go on. @throws AppError `conflict` when it is not cutting, or takes no such order */
export async function pauseRun(
  runId: number,
  isPaused: boolean,
  context: ServerContext,
  author = '',
): Promise<void> {
  await atDriver(context, { runId, author, wanted: { kind: 'pause', isPaused } });
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
  author = '',
): Promise<void> {
  await atDriver(context, { runId, author, wanted: { kind: 'repeat', operation } });
}

/** The sheet is taken out: the run is done. @throws AppError `conflict` before all is cut */
export async function unloadRun(runId: number, context: ServerContext, author = ''): Promise<void> {
  await atDriver(context, { runId, author, wanted: { kind: 'unload' } });
}
