import { AppError } from '#core/errors/appError.ts';
import type { TaskName, TaskReply } from '#web/workers/pool.ts';
import { TASKS } from '#web/workers/tasks/listTasks.ts';

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
