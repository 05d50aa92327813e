import type { Knex } from 'knex';

/** What a cut liner or a scarred mat costs a workshop, in test cuts; left out, as much as is usual. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('workshop', (table) => {
    table.double('harm_cuts').nullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('workshop', (table) => {
    table.dropColumn('harm_cuts');
  });
}
