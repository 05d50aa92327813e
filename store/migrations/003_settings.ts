import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('settings', (table) => {
    table.increments('id');
    table.integer('condition_id').unsigned().notNullable().references('material_conditions.id');
    table.integer('machine_id').unsigned().notNullable().references('machines.id');
    table.string('blade_kind', 40).notNullable();
    table.string('operation', 20).notNullable();
    table.unique(['condition_id', 'machine_id', 'blade_kind', 'operation']);
  });
  await db.schema.createTable('setting_revisions', (table) => {
    table.increments('id');
    table.integer('setting_id').unsigned().notNullable().references('settings.id');
    table.integer('revision').notNullable();
    table.json('setting_values').notNullable();
    table.json('sources').notNullable();
    table.string('author', 60).notNullable();
    table.string('reason', 300).notNullable();
    table.datetime('at', { precision: 3 }).notNullable().index();
    table.unique(['setting_id', 'revision']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('setting_revisions');
  await db.schema.dropTable('settings');
}
