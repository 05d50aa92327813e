import type { Knex } from 'knex';

/** The workshop's own rules: which lines take which role. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('role_rules', (table) => {
    table.increments('id');
    table.string('layer', 80).nullable();
    table.string('colour', 7).nullable();
    table.boolean('is_dashed').nullable();
    table.string('role', 20).notNullable();
    table.string('author', 60).notNullable();
    table.datetime('made_at', { precision: 3 }).notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('role_rules');
}
