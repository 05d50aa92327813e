import type { RunCourse, RunEvent } from '#core/run/runCourse.ts';
import type { RunStep } from '#core/run/stepRun.ts';
import type { ServerContext } from '#server/context/context.ts';
import type { DrivenRun } from '#store/repositories/runs/runEvents.ts';

/** Where a command is carried out: for which run, as it was written when it was given. */
export interface Scene {
  readonly context: ServerContext;
  readonly runId: number;
  readonly run: DrivenRun;
  /** Tells the run what came of it. */
  readonly tell: (event: RunEvent) => Promise<RunStep>;
  /** The run as it is now. */
  readonly course: () => RunCourse;
}
