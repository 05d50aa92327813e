import type { Knex } from 'knex';

/** Fonts of the workshop's own, for typed words and for words in drawings. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('fonts', (table) => {
    table.increments('id');
    table.string('name', 120).notNullable();
    table.string('family', 120).notNullable();
    table.boolean('is_bold').notNullable();
    table.specificType('data', 'mediumblob not null');
    table.string('author', 60).notNullable();
    table.datetime('added_at', { precision: 3 }).notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('fonts');
}
