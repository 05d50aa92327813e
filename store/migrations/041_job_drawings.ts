import type { Knex } from 'knex';

/** A job holds further drawings beside its first, and can be put away. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('job_drawings', (table) => {
    table.integer('job_id').unsigned().notNullable().references('jobs.id').onDelete('CASCADE');
    table.integer('number').unsigned().notNullable();
    table.string('name', 120).notNullable();
    table.string('format', 8).notNullable();
    table.specificType('source', 'LONGTEXT').notNullable();
    for (const column of ['roles', 'line_roles', 'edits']) table.json(column).notNullable();
    table.boolean('are_roles_guessed').notNullable();
    table.primary(['job_id', 'number']);
  });
  await db.schema.alterTable('jobs', (table) => {
    table.datetime('archived_at', { precision: 3 }).nullable();
    table.string('drawing_name', 120).nullable();
    table.integer('last_drawing').unsigned().notNullable().defaultTo(0);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('jobs', (table) =>
    table.dropColumns('archived_at', 'drawing_name', 'last_drawing'),
  );
  await db.schema.dropTable('job_drawings');
}
