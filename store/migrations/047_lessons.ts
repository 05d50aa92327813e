import type { Knex } from 'knex';

/** What other workshops learnt, as it was taken in, and the key that this one signs with what it gives away. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('lessons', (table) => {
    table.increments('id');
    /** SHA-256 of the giver's public key, hex: a newer one of the same giver takes the place of an older. */
    table.specificType('giver', 'char(64) character set ascii collate ascii_bin').notNullable().unique();
    /** What whoever took it in calls the giver. */
    table.string('name', 60).notNullable();
    table.json('lessons').notNullable();
    table.string('author', 60).notNullable();
    table.dateTime('taken_at', { precision: 3 }).notNullable();
    table.dateTime('put_away_at', { precision: 3 }).nullable();
  });
  await db.schema.createTable('signing_keys', (table) => {
    table.integer('id').primary();
    table.text('private_key').notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('signing_keys');
  await db.schema.dropTable('lessons');
}
