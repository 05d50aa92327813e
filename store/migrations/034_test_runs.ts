import type { Knex } from 'knex';

/** What is cut for a search runs as any job does; its job belongs to the search, and stands in no list of jobs. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('jobs', (table) => {
    table.integer('dial_in_id').unsigned().nullable().references('dial_ins.id');
  });
}

export async function down(db: Knex): Promise<void> {
  const own = db('jobs').whereNotNull('dial_in_id').select('id');
  const runs = db('runs').whereIn('job_id', own).select('id');
  // A search that is cut by no job keeps its grades; the runs go with their jobs.
  for (const table of ['run_strokes', 'run_events', 'run_grades', 'run_photos', 'run_settings']) {
    await db(table).whereIn('run_id', runs.clone()).delete();
  }
  await db('runs').whereIn('job_id', own.clone()).delete();
  await db('jobs').whereNotNull('dial_in_id').delete();
  await db.schema.alterTable('jobs', (table) => {
    table.dropForeign('dial_in_id');
    table.dropColumn('dial_in_id');
  });
}
