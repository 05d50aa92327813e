import type { Knex } from 'knex';

/** Sheets on which the shift of cut against print was read, and what a machine's files correct of it. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('registration_sheets', (table) => {
    table.increments('id');
    table.integer('machine_id').unsigned().notNullable().references('machines.id');
    table.integer('run_id').unsigned().nullable().references('runs.id');
    table.json('readings').notNullable();
    table.json('corrected').notNullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable();
    table.datetime('removed_at', { precision: 3 }).nullable();
    table.index(['machine_id', 'removed_at', 'id']);
  });
  await db.schema.createTable('registration_corrections', (table) => {
    table.increments('id');
    table.integer('machine_id').unsigned().notNullable().references('machines.id');
    table.json('affine').nullable();
    table.string('author', 60).notNullable();
    table.datetime('at', { precision: 3 }).notNullable();
    table.index(['machine_id', 'id']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('registration_corrections');
  await db.schema.dropTable('registration_sheets');
}
