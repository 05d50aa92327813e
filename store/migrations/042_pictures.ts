import type { Knex } from 'knex';

/** Pictures of drawings are kept apart from them, each once, in parts that one packet takes. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('pictures', (table) => {
    table.string('address', 120).notNullable().primary();
    table.specificType('small', 'mediumblob not null');
    table.specificType('profile', 'mediumblob');
    table.boolean('is_used').notNullable().defaultTo(false);
    table.datetime('added_at', { precision: 3 }).notNullable();
  });
  await db.schema.createTable('picture_parts', (table) => {
    table.string('address', 120).notNullable().references('pictures.address').onDelete('CASCADE');
    table.integer('part').unsigned().notNullable();
    table.specificType('data', 'mediumblob not null');
    table.primary(['address', 'part']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('picture_parts');
  await db.schema.dropTable('pictures');
}
