import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('machines', (table) => {
    table.increments('id');
    table.string('name', 80).notNullable().unique();
    table.string('kind', 20).notNullable();
    table.json('facts').notNullable();
    table.datetime('created_at', { precision: 3 }).notNullable();
  });
  await db.schema.createTable('blades', (table) => {
    table.increments('id');
    table.integer('number').notNullable().unique();
    table.string('kind', 40).notNullable();
    table.double('angle_deg').notNullable();
    table.double('offset_mm').notNullable();
    table.double('travel_metres').notNullable();
    table.double('life_metres').notNullable();
  });
  await db.schema.createTable('mats', (table) => {
    table.increments('id');
    table.integer('number').notNullable().unique();
    table.string('tack', 20).notNullable();
    table.integer('uses').notNullable();
    table.double('width_mm').notNullable();
    table.double('height_mm').notNullable();
  });
  await db.schema.createTable('stations', (table) => {
    table.integer('machine_id').unsigned().primary().references('machines.id');
    table.integer('blade_id').unsigned().nullable().unique().references('blades.id');
    table.integer('mat_id').unsigned().nullable().references('mats.id');
    table.integer('condition_id').unsigned().nullable().references('material_conditions.id');
    table.string('lot', 40).notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['stations', 'mats', 'blades', 'machines']) await db.schema.dropTable(table);
}
