import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('test_cuts', (table) => {
    table.increments('id');
    table.integer('condition_id').unsigned().notNullable().references('material_conditions.id');
    table.integer('machine_id').unsigned().notNullable().references('machines.id');
    table.string('operation', 20).notNullable();
    table.double('force_value').notNullable();
    table.double('force_gf').notNullable();
    table.double('speed_mm_per_s').notNullable();
    table.integer('passes').notNullable();
    table.double('exposure_mm').notNullable();
    table.double('blade_metres').notNullable();
    table.integer('grade').notNullable();
    table.json('flaws').notNullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable().index();
    table.datetime('undone_at', { precision: 3 }).nullable();
    table.index(['condition_id', 'machine_id', 'undone_at']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('test_cuts');
}
