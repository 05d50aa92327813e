import type { Knex } from 'knex';

/** What each graded cut said against what was expected of it then, alarms of drift, and the damp of the room. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('drift_points', (table) => {
    table.increments('id');
    table.integer('machine_id').unsigned().notNullable().references('machines.id');
    table.string('source', 10).notNullable();
    table.integer('source_id').unsigned().notNullable();
    table.double('residual').notNullable();
    table.integer('blade_id').unsigned().nullable();
    table.double('blade_metres').notNullable();
    table.integer('mat_id').unsigned().nullable();
    table.string('sheet', 160).notNullable();
    table.string('lot', 60).notNullable();
    table.double('humidity').nullable();
    table.datetime('at', { precision: 3 }).notNullable();
    table.unique(['source', 'source_id']);
    table.index(['machine_id', 'at']);
  });
  await db.schema.createTable('drift_alarms', (table) => {
    table.increments('id');
    table.integer('machine_id').unsigned().notNullable().references('machines.id');
    table.string('direction', 10).notNullable();
    table.string('cause', 20).notNullable();
    table.string('reason', 200).notNullable();
    table.datetime('raised_at', { precision: 3 }).notNullable();
    table.datetime('closed_at', { precision: 3 }).nullable();
    table.string('closed_why', 200).notNullable().defaultTo('');
    table.index(['machine_id', 'closed_at']);
  });
  await db.schema.alterTable('runs', (table) => {
    table.double('humidity').nullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('runs', (table) => table.dropColumn('humidity'));
  await db.schema.dropTable('drift_alarms');
  await db.schema.dropTable('drift_points');
}
