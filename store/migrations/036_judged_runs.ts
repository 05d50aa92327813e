import type { Knex } from 'knex';

/** A perforated piece or a crease that is cut to be judged runs as any job does, and stands in no list of jobs. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('jobs', (table) => {
    table.string('judged', 10).nullable().index();
  });
}

export async function down(db: Knex): Promise<void> {
  const own = db('jobs').whereNotNull('judged').select('id');
  const runs = db('runs').whereIn('job_id', own).select('id');
  for (const table of ['run_strokes', 'run_events', 'run_grades', 'run_photos', 'run_settings']) {
    await db(table).whereIn('run_id', runs.clone()).delete();
  }
  await db('runs').whereIn('job_id', own.clone()).delete();
  await db('jobs').whereNotNull('judged').delete();
  await db.schema.alterTable('jobs', (table) => {
    table.dropColumn('judged');
  });
}
