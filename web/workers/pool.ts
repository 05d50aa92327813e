import { join } from 'node:path';
import { Piscina } from 'piscina';
import { z } from 'zod';
import { AppError, type ErrorCode } from '#core/errors/appError.ts';
import type { TASKS } from '#web/workers/tasks/listTasks.ts';

type Tasks = typeof TASKS;
export type TaskName = keyof Tasks;
type Input<Name extends TaskName> = Parameters<Tasks[Name]>[0];
type Output<Name extends TaskName> = Awaited<ReturnType<Tasks[Name]>>;

/** What a thread answers: an error that crosses between threads loses its kind, so a refusal is told apart. */
export type TaskReply =
  | { readonly result: unknown }
  | {
      readonly refusal: { readonly code: ErrorCode; readonly message: string; readonly details: object };
    };

export interface TaskOptions {
  /** Ends the work: who asked hung up, or somebody pressed stop. */
  readonly signal?: AbortSignal | undefined;
  /** What is handed over with the input. */
  readonly transferList?: readonly Transferable[];
  /** Which threads take it; slow where nothing is said. */
  readonly lane?: Lane;
  readonly seconds?: number;
}

type Transferable = NonNullable<NonNullable<Parameters<Piscina['run']>[1]>['transferList']>[number];

/**
 * Threads by what they take, so that nobody who waits for a moment stands behind what takes a minute: quick answers;
 * drawings and prints; looking at pictures; questions that take a fit for every cut; the fit of the book; what is learnt behind it. `nice`
 * says how far a thread stands back behind the server's own, which drives machines and answers people.
 */
const LANES = {
  quick: { least: 1, most: 2, nice: 1 },
  slow: { least: 0, most: 2, nice: 5 },
  look: { least: 0, most: 1, nice: 5 },
  long: { least: 0, most: 1, nice: 10 },
  fit: { least: 1, most: 1, nice: 5 },
  learn: { least: 0, most: 1, nice: 15 },
} as const;
type Lane = keyof typeof LANES;

/** Work that takes longer is stopped, s. */
const MOST_SECONDS = 30;
/** A thread that wants more memory is ended, MB. */
const MOST_MEMORY_MB = 768;
/** So much may wait before anybody is told to come back later. */
const MOST_WAITING = 200;
const IDLE_MS = 60_000;

/** What a thread runs: the file of the build, where there is one, or the sources, whose loader a thread does not inherit. */
const { FEATHER_THREADS: built } = z.object({ FEATHER_THREADS: z.string().optional() }).parse(process.env);
const THREAD = built
  ? { filename: built }
  : { filename: join(process.cwd(), 'web/workers/tasks/thread.ts'), execArgv: ['--import', 'tsx'] };

const lanes = new Map<Lane, Piscina>();

function openLane(lane: Lane): Piscina {
  const known = lanes.get(lane);
  if (known) return known;
  const opened = new Piscina({
    ...THREAD,
    minThreads: LANES[lane].least,
    maxThreads: LANES[lane].most,
    workerData: { nice: LANES[lane].nice },
    idleTimeout: IDLE_MS,
    maxQueue: MOST_WAITING,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
  });
  lanes.set(lane, opened);
  return opened;
}

/**
 * Has a thread of the server work something out, so that the server goes on driving machines and answering.
 *
 * @throws AppError as the task does; `tooLarge` when it takes too long or too much memory; `busy` when too much waits
 */
export async function runTask<Name extends TaskName>(
  name: Name,
  input: Input<Name>,
  { signal, transferList = [], lane = 'slow', seconds = MOST_SECONDS }: TaskOptions = {},
): Promise<Output<Name>> {
  const late = AbortSignal.timeout(seconds * 1000);
  const ends = signal ? AbortSignal.any([signal, late]) : late;
  try {
    const reply = (await openLane(lane).run(
      { name, input },
      { signal: ends, transferList: [...transferList] },
    )) as TaskReply;
    if ('result' in reply) return reply.result as Output<Name>;
    const { code, message, details } = reply.refusal;
    throw new AppError(code, message, { ...details });
  } catch (error) {
    throw refusalOf(error, late.aborted, seconds);
  }
}

function refusalOf(error: unknown, isLate: boolean, seconds: number): unknown {
  if (error instanceof AppError || !(error instanceof Error)) return error;
  if (isLate) {
    return new AppError('tooLarge', `This took longer than ${seconds} s and was stopped: make it simpler.`);
  }
  if ('code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY') {
    return new AppError('tooLarge', `This needs more than ${MOST_MEMORY_MB} MB of memory: make it simpler.`);
  }
  if (/task queue is at limit/i.test(error.message)) {
    return new AppError('busy', 'Too much is being worked out at once. Try again in a moment.');
  }
  return error;
}

/** Starts the thread for quick questions before the first one is asked. */
export function warmPool(): void {
  openLane('quick');
}

/** Ends all threads; whoever waits is refused. */
export async function closePool(): Promise<void> {
  const open = [...lanes.values()];
  lanes.clear();
  await Promise.all(open.map((lane) => lane.destroy()));
}
