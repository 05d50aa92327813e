import type { Knex } from 'knex';

/** Several servers on one store: which are there, which of them drives a run, and what is asked of it by the others. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('servers', (table) => {
    ascii(table, 'id', 36).primary();
    table.string('host', 120).notNullable();
    table.integer('pid').notNullable();
    table.dateTime('seen_at', { precision: 3 }).notNullable();
  });
  await db.schema.createTable('run_leases', (table) => {
    table.integer('run_id').unsigned().primary().references('runs.id').onDelete('CASCADE');
    ascii(table, 'holder', 36).notNullable();
    /** Raised whenever another server takes the run: what an earlier one still writes is refused. */
    table.bigInteger('fence').unsigned().notNullable();
    table.dateTime('until', { precision: 3 }).notNullable();
    /** Where the head is and what has gone out, as the holder saw it last: JSON. */
    table.json('sight').nullable();
  });
  await db.schema.createTable('run_orders', (table) => {
    ascii(table, 'id', 36).primary();
    table.integer('run_id').unsigned().notNullable().references('runs.id').onDelete('CASCADE');
    table.json('wanted').notNullable();
    table.string('author', 60).notNullable();
    table.json('answer').nullable();
    table.dateTime('at', { precision: 3 }).notNullable().index();
  });
}

function ascii(table: Knex.CreateTableBuilder, name: string, length: number) {
  return table.specificType(name, `varchar(${length}) character set ascii collate ascii_bin`);
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['run_orders', 'run_leases', 'servers']) await db.schema.dropTable(table);
}
