import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import { AppError } from '#core/errors/appError.ts';
import { addRepeat } from '#core/program/runProgram.ts';
import { abilitiesOf } from '#core/protocol/findLanguage.ts';
import { isRunOver, type RunState } from '#core/run/run.ts';
import type { RunEvent } from '#core/run/runCourse.ts';
import type { ServerContext } from '#server/context/context.ts';
import { findLink } from '#server/links/findLink.ts';
import { watchRun } from '#server/runs/runHub.ts';
import { tellRun } from '#server/runs/runLoop.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import { findDrivenRun } from '#store/repositories/runs/runEvents.ts';
import { findRun } from '#store/repositories/runs/runs.ts';

/** Orders as they are carried out on the server that drives the run; people give them through `runOrders.ts`. */

/** What a person says of the strokes that nobody knows of: they are cut again, or left as they are. */
export type OpenStroke = 'again' | 'leave';

/** A stop is answered when the run stands still, or after so long. */
const STANDSTILL_MS = 6_000;

/**
 * Goes on after hands are done, or after a person looked at a sheet that was held.
 *
 * @throws AppError `conflict` when the run waits for nothing
 */
export async function continueHere(
  runId: number,
  open: OpenStroke,
  context: ServerContext,
  author: string,
): Promise<void> {
  const event = { kind: 'handsDone', open } as const;
  await order(runId, event, context, { author, refusal: 'This run is not waiting for anything.' });
}

/**
 * Stops a run. From this moment nothing more is sent; the answer comes when it stands still.
 *
 * @returns the state it came to: `stopped`, or `held` where the machine cannot be told from here
 * @throws AppError `conflict` when it is over
 */
export async function stopHere(runId: number, context: ServerContext, author: string): Promise<RunState> {
  const refusal = 'This run is over already.';
  const written = order(runId, { kind: 'stopOrdered' }, context, { author, refusal });
  const state = await Promise.race([written, refuseLater()]);
  return state === 'stopping' ? standstill(runId, context) : state;
}

/** Holds the blade, or lets it go on. @throws AppError `conflict` when it is not cutting, or takes no such order */
export async function pauseHere(
  runId: number,
  isPaused: boolean,
  context: ServerContext,
  author: string,
): Promise<void> {
  const run = await findRun(context.store, runId);
  const refusal = isPaused ? 'This run is not cutting now.' : 'This run is not paused.';
  if (run.state !== (isPaused ? 'cutting' : 'paused')) throw new AppError('conflict', refusal);
  const machine = await findMachine(context.store, run.machineId);
  if (!findLink(machine, context).hands && !abilitiesOf(machine).pause) {
    throw new AppError('conflict', 'This machine takes no orders from here: pause it at its own panel.');
  }
  const wanted: RunState = isPaused ? 'paused' : 'cutting';
  const seen = seeState(runId, (state) => state === wanted || isRunOver(state) || state === 'held');
  await tellRun(context, runId, { kind: isPaused ? 'pauseOrdered' : 'resumeOrdered' }, { author });
  const state = await seen;
  if (state === null) {
    throw new AppError('deviceUnreachable', 'The machine did not take the order: give it at its own panel.');
  }
  if (state !== wanted) throw new AppError('conflict', refusal);
}

/**
 * Cuts the path of an operation once more while the sheet has not moved. No number is raised.
 *
 * @throws AppError `conflict` when the sheet is not in, `notFound` when the run has no such operation
 */
export async function repeatHere(
  runId: number,
  operation: CutRole,
  context: ServerContext,
  author: string,
): Promise<void> {
  const [run, { program }] = await Promise.all([
    findRun(context.store, runId),
    findDrivenRun(context.store, runId),
  ]);
  const more = addRepeat(program, run.strokes, operation);
  if (!more) throw new AppError('notFound', `this run has no ${operation} cut`);
  const part = { from: run.strokes.length, to: run.strokes.length + more.strokes.length, before: null };
  await order(runId, { kind: 'repeatOrdered', part }, context, {
    author,
    more,
    refusal: 'A path can be repeated only while the sheet is still in, after all is cut.',
  });
}

/** The sheet is taken out: the run is done. @throws AppError `conflict` before all is cut */
export async function unloadHere(runId: number, context: ServerContext, author: string): Promise<void> {
  await order(runId, { kind: 'unloaded' }, context, { author, refusal: 'This run is not at its end yet.' });
}

/** The state of a run after an order. */
export async function stateHere(runId: number, { store }: ServerContext): Promise<RunState> {
  return (await findRun(store, runId)).state;
}

interface Order {
  readonly author: string;
  readonly refusal: string;
  readonly more?: NonNullable<Parameters<typeof tellRun>[3]>['more'];
}

/** An order that changes nothing came too late, or a second time. @returns the state it led to */
async function order(
  runId: number,
  event: RunEvent,
  context: ServerContext,
  { author, refusal, more }: Order,
): Promise<RunState> {
  // A store that is away is told at once; a stop alone waits for it, because it has been obeyed already.
  if (event.kind !== 'stopOrdered') await findRun(context.store, runId);
  const { course, commands, isTaken } = await tellRun(context, runId, event, { author, more });
  if (!isTaken && commands.length === 0) throw new AppError('conflict', refusal);
  return course.state;
}

/** A stop that cannot be written down yet is obeyed all the same. */
async function refuseLater(): Promise<never> {
  await new Promise((resolve) => setTimeout(resolve, STANDSTILL_MS).unref());
  throw new AppError(
    'storeUnavailable',
    'Nothing more is sent, and the machine is told to stop. That is written down when the book can be opened again.',
  );
}

/** The state in which a run that is being stopped comes to stand. */
async function standstill(runId: number, context: ServerContext): Promise<RunState> {
  const seen = seeState(runId, (state) => state !== 'stopping');
  const { state } = await findRun(context.store, runId);
  return state === 'stopping' ? ((await seen) ?? 'stopping') : state;
}

/** The first state of a run that fits, as it is told; `null` when none comes in time. */
function seeState(runId: number, fits: (state: RunState) => boolean): Promise<RunState | null> {
  return new Promise((resolve) => {
    const timer = setTimeout(() => done(null), STANDSTILL_MS);
    const unwatch = watchRun(runId, (event) => {
      if (event.kind === 'state' && fits(event.state)) done(event.state);
    });
    const done = (state: RunState | null) => {
      clearTimeout(timer);
      unwatch();
      resolve(state);
    };
  });
}
