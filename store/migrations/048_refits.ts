import type { Knex } from 'knex';

/** Several servers fit one book: how often it was asked for, how far it is done, and who is at it. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('refits', (table) => {
    table.integer('id').primary();
    table.bigInteger('asked').unsigned().notNullable();
    /** What was asked up to this number has been seen by a fit. */
    table.bigInteger('done').unsigned().notNullable();
    table.specificType('holder', 'varchar(36) character set ascii collate ascii_bin').nullable();
    table.dateTime('until', { precision: 3 }).nullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('refits');
}
