import type { Knex } from 'knex';

/** Machines can be changed and put away. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('machines', (table) => {
    table.integer('version').notNullable().defaultTo(1);
    table.datetime('archived_at', { precision: 3 }).nullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('machines', (table) => table.dropColumns('version', 'archived_at'));
}
