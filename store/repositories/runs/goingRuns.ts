import type { RunState } from '#core/run/run.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { UNFINISHED } from '#store/repositories/runs/runs.ts';

/** A run that is not over, for the rail. */
export interface GoingRun {
  readonly id: number;
  readonly machineId: number;
  readonly jobName: string;
  readonly state: RunState;
}

/** Runs that are going now, the newest first. */
export async function findGoingRuns(db: Store): Promise<readonly GoingRun[]> {
  const rows: { id: number; machine_id: number; job_name: string; state: RunState }[] = await db('runs')
    .join('jobs', 'jobs.id', 'runs.job_id')
    .whereIn('runs.state', [...UNFINISHED])
    .select('runs.id', 'runs.state', 'runs.machine_id', { job_name: 'jobs.name' })
    .orderBy('runs.id', 'desc');
  return rows.map((row) => ({
    id: row.id,
    machineId: row.machine_id,
    jobName: row.job_name,
    state: row.state,
  }));
}
