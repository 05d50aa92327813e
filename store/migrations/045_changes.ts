import type { Knex } from 'knex';

/** Who changed what a moment ago and who looks at it, for screens that show the same thing. Nothing of it lasts. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('changes', (table) => {
    table.bigIncrements('id');
    /** A kind and a number: jobs/3. */
    table.specificType('topic', 'varchar(60) character set ascii collate ascii_bin').notNullable();
    table.string('author', 60).notNullable();
    /** The page that asked for it, or empty. */
    table.specificType('page', 'varchar(40) character set ascii collate ascii_bin').notNullable();
    table.dateTime('at', { precision: 3 }).notNullable().index();
  });
  await db.schema.createTable('watchers', (table) => {
    table.specificType('id', 'char(36) character set ascii collate ascii_bin').primary();
    /** The process that holds the line to it. */
    table.specificType('server', 'char(36) character set ascii collate ascii_bin').notNullable().index();
    table.specificType('topic', 'varchar(60) character set ascii collate ascii_bin').notNullable().index();
    table.specificType('page', 'varchar(40) character set ascii collate ascii_bin').notNullable();
    table.string('name', 60).notNullable();
    table.dateTime('seen_at', { precision: 3 }).notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('watchers');
  await db.schema.dropTable('changes');
}
