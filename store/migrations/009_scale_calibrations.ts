import type { Knex } from 'knex';

/** Readings of a balance under the tip; the newest that was not taken back measures the scale. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('scale_calibrations', (table) => {
    table.increments('id');
    table.integer('machine_id').unsigned().notNullable().references('machines.id');
    table.json('readings').notNullable();
    table.json('fitted').notNullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable();
    table.datetime('removed_at', { precision: 3 }).nullable();
    table.index(['machine_id', 'removed_at', 'id']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('scale_calibrations');
}
