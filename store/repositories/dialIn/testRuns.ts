import type { RunState } from '#core/run/run.ts';
import type { JudgedQuantity } from '#store/repositories/dialIn/judgedPieces.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** The last run of a search. */
export interface TestRun {
  readonly id: number;
  readonly state: RunState;
  readonly requestKey: string | null;
}

/** What was last cut on a machine for a search, or `null`. */
export async function findNewestTestRun(db: Store, dialInId: number): Promise<TestRun | null> {
  return findNewest(db, { 'jobs.dial_in_id': dialInId });
}

/** The piece of a sheet that was last cut on a machine to be judged, or `null`. */
export async function findNewestJudgedRun(
  db: Store,
  machineId: number,
  conditionId: number,
  judged: JudgedQuantity,
): Promise<TestRun | null> {
  return findNewest(db, {
    'jobs.judged': judged,
    'jobs.machine_id': machineId,
    'jobs.condition_id': conditionId,
  });
}

async function findNewest(
  db: Store,
  where: Readonly<Record<string, number | string>>,
): Promise<TestRun | null> {
  const row: { id: number; state: RunState; request_key: string | null } | undefined = await db('runs')
    .join('jobs', 'jobs.id', 'runs.job_id')
    .where(where)
    .orderBy('runs.id', 'desc')
    .first('runs.id', 'runs.state', 'runs.request_key');
  return row ? { id: row.id, state: row.state, requestKey: row.request_key } : null;
}

/** The job that stands for the pieces of a sheet that are judged on a machine, or `null` while none was cut. */
export async function findJudgedJob(
  db: Store,
  machineId: number,
  conditionId: number,
  judged: JudgedQuantity,
): Promise<number | null> {
  const row: { id: number } | undefined = await db('jobs')
    .where({ judged, machine_id: machineId, condition_id: conditionId })
    .first('id');
  return row?.id ?? null;
}

/** The job that stands for a search in the records of runs, or `null` while nothing was cut for it. */
export async function findTestJob(db: Store, dialInId: number): Promise<number | null> {
  const row: { id: number } | undefined = await db('jobs').where({ dial_in_id: dialInId }).first('id');
  return row?.id ?? null;
}
