import type { Knex } from 'knex';

/** What helped at a machine for good is looked at before every run there, until somebody puts it away. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('fault_cases', (table) => {
    table.datetime('put_away_at', { precision: 3 }).nullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('fault_cases', (table) => {
    table.dropColumn('put_away_at');
  });
}
