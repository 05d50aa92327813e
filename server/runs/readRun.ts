import type { Run } from '#core/run/run.ts';
import { findLive } from '#server/runs/live.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findRun } from '#store/repositories/runs/runs.ts';

/**
 * A run as it is kept, and how much of it has gone out by now where its machine says nothing.
 *
 * @throws AppError `notFound`
 */
export async function readRun(store: Store, id: number): Promise<Run> {
  const run = await findRun(store, id);
  const live = run.state === 'cutting' ? findLive(id) : null;
  return live?.isFollowed ? { ...run, outTo: live.outTo() } : run;
}
