import { itemAt } from '#core/collections/itemAt.ts';
import { randomUUID } from 'node:crypto';
import { AppError } from '#core/errors/appError.ts';
import type { RunEvent } from '#core/run/runCourse.ts';
import { stepRun, type RunStep } from '#core/run/stepRun.ts';
import type { ServerContext } from '#server/context/context.ts';
import { performCommand } from '#server/runs/performCommand.ts';
import { forgetSight, publishRunEvent } from '#server/runs/runHub.ts';
import { retryOnStore } from '#server/runs/retryOnStore.ts';
import {
  findDrivenRun,
  keepRunStep,
  listDrivenRuns,
  type DrivenRun,
  type WrittenStep,
} from '#store/repositories/runs/runEvents.ts';

/** Something that happened to a run, as it waits to be written down. */
interface Entry {
  readonly event: RunEvent;
  readonly author: string;
  readonly more: WrittenStep['more'];
  readonly resolve: (step: TakenStep) => void;
  readonly reject: (error: unknown) => void;
}

/** A step, and whether it changed anything. */
export interface TakenStep extends RunStep {
  readonly isTaken: boolean;
}

/** One queue a run: events are written down one after the other. */
interface Loop {
  entries: Entry[];
  isWorking: boolean;
  /** Commands that are being carried out here. */
  acting: number;
  /** As it was written last; `null` when it may have been moved elsewhere. */
  run: DrivenRun | null;
}

/** Two servers may write at the same moment: who came second works its step out anew. */
const MOST_COLLISIONS = 50;

const loops = new Map<number, Loop>();

/**
 * Tells a run what happened. Resolves when it is written down; what is to be done about it is then under way. While the
 * store is away it waits.
 *
 * @throws AppError `notFound`; `conflict` for a run that was never sent from here
 */
export function tellRun(
  context: ServerContext,
  runId: number,
  event: RunEvent,
  { author = '', more }: { readonly author?: string; readonly more?: WrittenStep['more'] } = {},
): Promise<TakenStep> {
  const known = loops.get(runId);
  const loop = known ?? { entries: [], isWorking: false, acting: 0, run: null };
  if (!known) {
    loops.set(runId, loop);
    context.leases?.use(runId);
  }
  return new Promise((resolve, reject) => {
    loop.entries.push({ event, author, more, resolve, reject });
    void work(context, runId, loop);
  });
}

/** Whether this server has anything to do with a run at the moment. */
export function isDriven(runId: number): boolean {
  return loops.has(runId);
}

/**
 * Takes up a run where it is: a new one, or one that a server left. What was acknowledged is never sent again. Never
 * rejects.
 */
export async function driveRun(runId: number, context: ServerContext): Promise<void> {
  const { leases, log } = context;
  if (isDriven(runId)) return;
  try {
    if (leases && !(await leases.take(runId))) return;
    try {
      // Somebody may have come first while the lease was taken: taken up twice, the machine would be asked for nothing.
      if (!isDriven(runId)) await tellRun(context, runId, { kind: 'taken' });
    } finally {
      leases?.leave(runId);
    }
  } catch (error) {
    log.error({ err: error, runId }, 'run cannot be taken up');
  }
}

/** Takes up the runs that are under way and that nobody drives here. Returns how many. */
export async function resumeRuns(context: ServerContext): Promise<number> {
  const ids = (await listDrivenRuns(context.store)).filter((id) => !isDriven(id));
  for (const id of ids) void driveRun(id, context);
  return ids.length;
}

async function work(context: ServerContext, runId: number, loop: Loop): Promise<void> {
  if (loop.isWorking) return;
  loop.isWorking = true;
  for (let batch = takeBatch(loop); batch.length > 0; batch = takeBatch(loop)) {
    try {
      const step = await write(context, runId, loop, batch);
      for (const { resolve } of batch) resolve(step);
      act(context, runId, loop, step);
    } catch (error) {
      loop.run = null;
      for (const { reject } of batch) reject(error);
    }
  }
  loop.isWorking = false;
  rest(context, runId, loop);
}

/** The next event; strokes that were reached one after the other are written in one go. */
function takeBatch(loop: Loop): readonly Entry[] {
  const length = loop.entries.findIndex(({ event }) => event.kind !== 'reached');
  return loop.entries.splice(0, length === 0 ? 1 : length === -1 ? loop.entries.length : length);
}

async function write(
  context: ServerContext,
  runId: number,
  loop: Loop,
  batch: readonly Entry[],
): Promise<TakenStep> {
  const event = mergeEvents(batch.map((entry) => entry.event));
  const { author, more } = itemAt(batch, 0);
  const writeId = randomUUID();
  for (let collisions = 0; collisions < MOST_COLLISIONS; collisions++) {
    const run = (loop.run ??= await retryOnStore(context, () => findDrivenRun(context.store, runId)));
    const before = run.course;
    const step = stepRun(before, event);
    const lease = leaseOf(context, runId);
    const written = { runId, version: run.version, before, event, step, author, writeId, more, lease };
    const version = await retryOnStore(context, () => keepRunStep(context.store, written, new Date()));
    if (version === null) {
      loop.run = null;
      continue;
    }
    loop.run = { ...run, course: step.course, version, program: more?.program ?? run.program };
    for (const stroke of step.strokes) publishRunEvent(runId, { kind: 'stroke', ...stroke });
    const { state, message } = step.course;
    if (state !== before.state || message !== before.message) {
      publishRunEvent(runId, { kind: 'state', state, message });
    }
    return { ...step, isTaken: step.course !== before };
  }
  throw new AppError('conflict', 'This run is being changed elsewhere at this very moment: try again.');
}

function mergeEvents(events: readonly RunEvent[]): RunEvent {
  const [first] = events as [RunEvent];
  if (events.length === 1) return first;
  return {
    kind: 'reached',
    strokes: events.flatMap((event) => (event.kind === 'reached' ? event.strokes : [])),
  };
}

function act(context: ServerContext, runId: number, loop: Loop, { commands }: RunStep): void {
  const { run } = loop;
  if (!run) return;
  for (const command of commands) {
    loop.acting += 1;
    const scene = {
      context,
      runId,
      run,
      tell: (event: RunEvent) => tellRun(context, runId, event),
      course: () => loop.run?.course ?? run.course,
    };
    performCommand(scene, command)
      .catch(async (error: unknown) => {
        context.log.error({ err: error, runId, command: command.kind }, 'run cannot go on');
        const reason = error instanceof AppError ? error.message : 'The server failed during this run.';
        await tellRun(context, runId, { kind: 'failed', reason });
      })
      .catch((error: unknown) => context.log.error({ err: error, runId }, 'a failed run could not be held'))
      .finally(() => {
        loop.acting -= 1;
        rest(context, runId, loop);
      });
  }
}

/** Nothing is under way here any more: whoever moves the run next reads it anew. */
function rest({ leases }: ServerContext, runId: number, loop: Loop): void {
  if (loop.isWorking || loop.acting > 0 || loop.entries.length > 0 || loops.get(runId) !== loop) return;
  loops.delete(runId);
  forgetSight(runId);
  leases?.leave(runId);
}

/** Under what this server writes a run. @throws AppError `conflict` when another one drives it now */
function leaseOf({ leases }: ServerContext, runId: number): WrittenStep['lease'] {
  if (!leases) return undefined;
  const lease = leases.holds(runId) ? leases.fenceOf(runId) : null;
  if (!lease) throw new AppError('conflict', 'Another server drives this run now.');
  return lease;
}
