import type { Knex } from 'knex';

/**
 * People who sign in: what each may do, how they show who they are, where they are signed in, and tokens of scripts.
 * Whoever worked here before may do what everybody could, but for what is the owner's; a password comes later.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('operators', (table) => {
    table.string('role', 20).notNullable().defaultTo('operator');
    table.string('password_hash', 200).nullable();
    table.string('pin_hash', 200).nullable();
  });
  await db.schema.createTable('sessions', (table) => {
    table.increments('id');
    table.integer('operator_id').unsigned().notNullable().references('operators.id').onDelete('CASCADE');
    /** SHA-256 of what the browser holds. */
    table.string('hash', 64).notNullable().unique();
    table.string('previous_hash', 64).nullable().index();
    table.boolean('is_by_pin').notNullable();
    table.dateTime('begun_at', { precision: 3 }).notNullable();
    table.dateTime('rotated_at', { precision: 3 }).notNullable();
    table.dateTime('seen_at', { precision: 3 }).notNullable();
    table.string('browser', 200).notNullable();
  });
  await db.schema.createTable('tokens', (table) => {
    table.increments('id');
    table.integer('operator_id').unsigned().notNullable().references('operators.id').onDelete('CASCADE');
    table.string('name', 60).notNullable();
    table.string('role', 20).notNullable();
    table.string('hash', 64).notNullable().unique();
    table.dateTime('made_at', { precision: 3 }).notNullable();
    table.dateTime('used_at', { precision: 3 }).nullable();
  });
  /** Browsers at which hands change by a PIN. */
  await db.schema.createTable('trusted_benches', (table) => {
    table.increments('id');
    table.string('hash', 64).notNullable().unique();
    table.string('trusted_by', 60).notNullable();
    table.dateTime('trusted_at', { precision: 3 }).notNullable();
  });
  /** As rate-limiter-flexible keeps its counts. */
  await db.schema.createTable('sign_in_tries', (table) => {
    table.string('key', 255).primary();
    table.integer('points').notNullable().defaultTo(0);
    table.bigInteger('expire').unsigned().nullable();
  });
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['sign_in_tries', 'trusted_benches', 'tokens', 'sessions'])
    await db.schema.dropTable(table);
  await db.schema.alterTable('operators', (table) => {
    table.dropColumns('role', 'password_hash', 'pin_hash');
  });
}
