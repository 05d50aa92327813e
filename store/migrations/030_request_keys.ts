import type { Knex } from 'knex';

/** What every change was asked by: the same key gives the same answer, and one change. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('request_keys', (table) => {
    table.specificType('request_key', 'varchar(128) character set ascii collate ascii_bin').primary();
    table.specificType('fingerprint', 'char(64) character set ascii collate ascii_bin').notNullable();
    /** Deflated JSON; null until something outside the book is done, and for who named no key. */
    table.specificType('reply', 'mediumblob').nullable();
    table.boolean('is_done').notNullable();
    table.dateTime('at', { precision: 3 }).notNullable().index();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('request_keys');
}
