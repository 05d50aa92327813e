import type { Knex } from 'knex';

/** Pieces judged on a simple scale where force is not the question: how tabs held, how a crease folded. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('judged_pieces', (table) => {
    table.increments('id');
    table.integer('condition_id').unsigned().notNullable().references('material_conditions.id');
    table.integer('machine_id').unsigned().notNullable().references('machines.id');
    table.string('quantity', 20).notNullable();
    table.json('given').notNullable();
    table.integer('seen').notNullable();
    table.string('lot', 60).notNullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable();
    table.datetime('undone_at', { precision: 3 }).nullable();
    table.index(['condition_id', 'machine_id', 'quantity', 'undone_at']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('judged_pieces');
}
