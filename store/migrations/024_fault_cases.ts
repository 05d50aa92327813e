import type { Knex } from 'knex';

/** Faults that were met: what was seen, what was done about it, and whether it helped. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('fault_cases', (table) => {
    table.increments('id');
    table.integer('machine_id').unsigned().notNullable().references('machines.id');
    table.integer('condition_id').unsigned().nullable().references('material_conditions.id');
    table.string('operation', 20).notNullable();
    table.json('symptoms').notNullable();
    table.string('cause', 30).notNullable();
    table.string('action', 30).notNullable();
    table.string('change_words', 80).notNullable();
    table.boolean('has_helped').nullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable();
    table.datetime('answered_at', { precision: 3 }).nullable();
    table.index(['machine_id', 'answered_at']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('fault_cases');
}
