import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('upkeep_entries', (table) => {
    table.increments('id');
    table.string('what', 300).notNullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable().index();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('upkeep_entries');
}
