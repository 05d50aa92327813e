import type { Knex } from 'knex';

const TABLES = ['test_cuts', 'runs', 'setting_revisions'] as const;

/** On which lot and colour something was cut. */
export async function up(db: Knex): Promise<void> {
  for (const name of TABLES) {
    await db.schema.alterTable(name, (table) => {
      table.string('lot', 40).notNullable().defaultTo('');
      table.string('colour', 40).notNullable().defaultTo('');
    });
  }
  await db.schema.alterTable('stations', (table) => table.string('colour', 40).notNullable().defaultTo(''));
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('stations', (table) => table.dropColumn('colour'));
  for (const name of TABLES) await db.schema.alterTable(name, (table) => table.dropColumns('lot', 'colour'));
}
