import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('materials', (table) => {
    table.increments('id');
    table.string('name', 120).notNullable();
    table.string('maker', 80).notNullable();
    table.string('family', 30).notNullable();
    table.string('finish', 40).notNullable();
    table.string('colour_name', 40).notNullable();
    table.string('colour_hex', 7).notNullable();
    table.double('darkness').notNullable();
    table.json('cautions').notNullable();
    table.datetime('created_at', { precision: 3 }).notNullable();
    table.unique(['maker', 'name']);
  });
  await db.schema.createTable('material_conditions', (table) => {
    table.increments('id');
    table.integer('material_id').unsigned().notNullable().references('materials.id');
    table.string('kind', 20).notNullable();
    table.json('stack').notNullable();
    table.unique(['material_id', 'kind']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('material_conditions');
  await db.schema.dropTable('materials');
}
