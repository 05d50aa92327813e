import type { Store } from '#store/connection/connectStore.ts';

/** What a workshop has done of its first hour. */
export interface FirstSteps {
  readonly hasSetting: boolean;
  readonly hasJob: boolean;
}

/** Whether a workshop has kept a setting and made a job, ever. */
export async function readFirstSteps(db: Store): Promise<FirstSteps> {
  const [setting, job] = await Promise.all([
    db('settings').where('newest_revision', '>', 0).first('id'),
    db('jobs').first('id'),
  ]);
  return { hasSetting: setting !== undefined, hasJob: job !== undefined };
}
