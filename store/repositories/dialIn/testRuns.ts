import type { RunState } from '#core/run/run.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** The last run of a search. */
export interface TestRun {
  readonly id: number;
  readonly state: RunState;
  readonly requestKey: string | null;
}

/** What was last cut on a machine for a search, or `null`. */
export async function findNewestTestRun(db: Store, dialInId: number): Promise<TestRun | null> {
  const row: { id: number; state: RunState; request_key: string | null } | undefined = await db('runs')
    .join('jobs', 'jobs.id', 'runs.job_id')
    .where('jobs.dial_in_id', dialInId)
    .orderBy('runs.id', 'desc')
    .first('runs.id', 'runs.state', 'runs.request_key');
  return row ? { id: row.id, state: row.state, requestKey: row.request_key } : null;
}

/** The job that stands for a search in the records of runs, or `null` while nothing was cut for it. */
export async function findTestJob(db: Store, dialInId: number): Promise<number | null> {
  const row: { id: number } | undefined = await db('jobs').where({ dial_in_id: dialInId }).first('id');
  return row?.id ?? null;
}
