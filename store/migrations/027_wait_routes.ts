import type { Knex } from 'knex';

/** What a material in one of its states waits for, in order, where somebody said so. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('wait_routes', (table) => {
    table.integer('condition_id').unsigned().primary().references('material_conditions.id');
    table.json('kinds').notNullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('wait_routes');
}
