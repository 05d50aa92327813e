import type { Knex } from 'knex';

/** What the book has taught, by version, and the workshop's own beliefs. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('knowledge', (table) => {
    table.increments('id');
    table.string('model', 40).notNullable();
    table.specificType('fitted', 'LONGTEXT').notNullable();
    table.integer('trial_count').notNullable();
    table.integer('last_cut_id').notNullable();
    table.double('milliseconds').notNullable();
    table.datetime('at', { precision: 3 }).notNullable().index();
  });
  await db.schema.createTable('priors', (table) => {
    table.string('name', 40).primary();
    table.double('mean').notNullable();
    table.double('sd').notNullable();
    table.string('reason', 300).notNullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('priors');
  await db.schema.dropTable('knowledge');
}
