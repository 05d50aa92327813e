import type { Knex } from 'knex';

/** A search for one setting: two people and two devices work on the same one, and a card on the bench is not lost. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('dial_ins', (table) => {
    table.increments('id');
    table.integer('machine_id').unsigned().notNullable().references('machines.id');
    table.integer('condition_id').unsigned().notNullable().references('material_conditions.id');
    table.string('lot', 60).notNullable();
    table.string('colour', 60).notNullable();
    table.string('operation', 20).notNullable();
    table.integer('passes').notNullable();
    table.double('speed').notNullable();
    table.double('exposure_mm').notNullable();
    table.string('state', 20).notNullable();
    table.integer('load_count').notNullable().defaultTo(0);
    table.json('card').nullable();
    table.json('scrap').notNullable();
    table.string('author', 60).notNullable();
    table.datetime('opened_at', { precision: 3 }).notNullable();
    table.datetime('changed_at', { precision: 3 }).notNullable().index();
    table.datetime('closed_at', { precision: 3 }).nullable();
    table.integer('version').notNullable().defaultTo(1);
    table.index(['machine_id', 'condition_id', 'operation', 'state']);
  });
  await db.schema.alterTable('test_cuts', (table) => {
    table.integer('dial_in_id').unsigned().nullable().references('dial_ins.id');
    table.integer('load_number').nullable();
    table.integer('cell').nullable();
    table.integer('grade_to').nullable();
    table.integer('blade_id').unsigned().nullable();
  });
  await db.schema.alterTable('runs', (table) => {
    table.double('blade_metres').nullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('runs', (table) => {
    table.dropColumn('blade_metres');
  });
  await db.schema.alterTable('test_cuts', (table) => {
    table.dropForeign('dial_in_id');
  });
  await db.schema.alterTable('test_cuts', (table) => {
    for (const column of ['dial_in_id', 'load_number', 'cell', 'grade_to', 'blade_id'])
      table.dropColumn(column);
  });
  await db.schema.dropTable('dial_ins');
}
