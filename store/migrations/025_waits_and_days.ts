import type { Knex } from 'knex';

/** Lengths of waits that a maker's sheet gives, timers that run, and planned days. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('wait_lengths', (table) => {
    table.integer('material_id').unsigned().notNullable().references('materials.id');
    table.string('kind', 30).notNullable();
    table.integer('minutes').notNullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable();
    table.primary(['material_id', 'kind']);
  });
  await db.schema.createTable('timers', (table) => {
    table.increments('id');
    table.string('kind', 30).notNullable();
    table.string('words', 160).notNullable();
    table.integer('job_id').unsigned().nullable().references('jobs.id');
    table.integer('material_id').unsigned().nullable().references('materials.id');
    table.string('author', 60).notNullable();
    table.datetime('started_at', { precision: 3 }).notNullable();
    table.datetime('ends_at', { precision: 3 }).notNullable().index();
    table.datetime('cleared_at', { precision: 3 }).nullable();
  });
  await db.schema.createTable('days', (table) => {
    table.string('day', 10).primary();
    table.specificType('plan', 'LONGTEXT').notNullable();
    table.integer('version').notNullable();
    table.datetime('updated_at', { precision: 3 }).notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['days', 'timers', 'wait_lengths']) await db.schema.dropTable(table);
}
