import type { Knex } from 'knex';

/** What happened to a run, one after the other: its state is changed only by an event, at the version it was seen at. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('runs', (table) => {
    table.integer('version').notNullable().defaultTo(0);
    table.integer('named').notNullable().defaultTo(0);
    table.integer('out_to').nullable();
  });
  await db.schema.createTable('run_events', (table) => {
    table.increments('id');
    table.integer('run_id').unsigned().notNullable().references('runs.id');
    table.integer('version').notNullable();
    table.string('kind', 20).notNullable();
    table.string('write_id', 36).notNullable();
    table.json('detail').notNullable();
    table.string('state', 20).notNullable();
    table.string('message', 600).notNullable();
    table.integer('strokes').notNullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable();
    table.unique(['run_id', 'version']);
  });
  await db.schema.alterTable('runs', (table) => {
    table.string('message', 600).notNullable().alter();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('run_events');
  await db('runs').update({ message: db.raw('left(message, 300)') });
  await db.schema.alterTable('runs', (table) => {
    table.string('message', 300).notNullable().alter();
    table.dropColumns('version', 'named', 'out_to');
  });
}
