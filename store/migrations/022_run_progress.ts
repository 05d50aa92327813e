import type { Knex } from 'knex';

/** What was sent of a run and how far it got, so that it outlives the server; grades given at the sheet. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('runs', (table) => {
    table.string('request_key', 64).nullable().unique();
    table.specificType('program', 'LONGTEXT').nullable();
    table.integer('part_index').notNullable().defaultTo(0);
    table.string('boot_id', 64).nullable();
    table.string('sent_key', 120).nullable();
    table.integer('sheet_number').notNullable().defaultTo(1);
    table.double('worn_metres').notNullable().defaultTo(0);
    table.integer('blade_id').unsigned().nullable().references('blades.id');
    table.integer('mat_id').unsigned().nullable().references('mats.id');
    table.integer('mat_uses').nullable();
    table.json('flaws').nullable();
  });
  await db.schema.createTable('run_grades', (table) => {
    table.increments('id');
    table.integer('run_id').unsigned().notNullable().references('runs.id');
    table.string('operation', 20).notNullable();
    table.integer('grade').notNullable();
    table.integer('passes_done').notNullable();
    table.double('x_mm').nullable();
    table.double('y_mm').nullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable();
    table.index(['run_id', 'operation']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('run_grades');
  await db.schema.alterTable('runs', (table) => {
    table.dropForeign('blade_id');
    table.dropForeign('mat_id');
    table.dropColumns(
      'request_key',
      'program',
      'part_index',
      'boot_id',
      'sent_key',
      'sheet_number',
      'worn_metres',
      'blade_id',
      'mat_id',
      'mat_uses',
      'flaws',
    );
  });
}
