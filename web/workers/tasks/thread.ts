import { readlinkSync } from 'node:fs';
import { setPriority } from 'node:os';
import { workerData } from 'node:worker_threads';
import { AppError } from '#core/errors/appError.ts';
import type { TaskName, TaskReply } from '#web/workers/pool.ts';
import { TASKS } from '#web/workers/tasks/listTasks.ts';

standBack((workerData as { readonly nice: number }).nice);

/** On Linux a thread has a priority of its own; elsewhere all stay alike. Source: setpriority(2), proc(5). */
function standBack(nice: number): void {
  try {
    const thread = Number(readlinkSync('/proc/thread-self').split('/').at(-1));
    if (thread > 0 && thread !== process.pid) setPriority(thread, nice);
  } catch {
    // Without it the work is done all the same.
  }
}

/** What a thread of the pool does: one task after the other. */
export default async function work({
  name,
  input,
}: {
  readonly name: TaskName;
  readonly input: unknown;
}): Promise<TaskReply> {
  try {
    const task = TASKS[name] as (given: unknown) => unknown;
    return { result: await task(input) };
  } catch (error) {
    if (!(error instanceof AppError)) throw error;
    const { code, message, details } = error;
    return { refusal: { code, message, details } };
  }
}
