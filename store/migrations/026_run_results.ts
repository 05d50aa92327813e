import type { Knex } from 'knex';

/** What came of a run beside its verdict: repeats, sheets used, photos. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('runs', (table) => {
    table.integer('repeated_strokes').notNullable().defaultTo(0);
    table.integer('sheets_used').notNullable().defaultTo(1);
  });
  await db.schema.createTable('run_photos', (table) => {
    table.increments('id');
    table.integer('run_id').unsigned().notNullable().references('runs.id');
    table.specificType('image', 'MEDIUMBLOB').notNullable();
    table.integer('width_px').notNullable();
    table.integer('height_px').notNullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable();
    table.index(['run_id', 'id']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('run_photos');
  await db.schema.alterTable('runs', (table) => table.dropColumns('repeated_strokes', 'sheets_used'));
}
