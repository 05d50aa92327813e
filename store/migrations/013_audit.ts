import type { Knex } from 'knex';

/** Who changed what, from what to what. Only ever added to. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('audit_entries', (table) => {
    table.increments('id');
    table.string('entity', 20).notNullable();
    table.integer('entity_id').notNullable();
    table.string('action', 20).notNullable();
    table.string('what', 300).notNullable();
    table.json('before_change').nullable();
    table.json('after_change').nullable();
    table.integer('undoes').unsigned().nullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable().index();
    table.index(['entity', 'entity_id', 'id']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('audit_entries');
}
