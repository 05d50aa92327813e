import type { Knex } from 'knex';

/** Names that were signed with when nobody had said who stood at the bench. */
const NOBODY = ['', 'bench', 'Somebody'];
/** Columns that hold who signed something. */
const SIGNED = [
  ['setting_revisions', 'author'],
  ['test_cuts', 'author'],
  ['runs', 'author'],
] as const;

/** What is the workshop's own: its time zone, and who works in it. Whoever signed something is one of its people. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('workshop', (table) => {
    table.integer('id').primary();
    table.string('time_zone', 60).nullable();
    /** What the demo made may be filled by it again; nothing else ever is. */
    table.boolean('is_demo').notNullable().defaultTo(false);
  });
  await db.schema.createTable('operators', (table) => {
    table.increments('id');
    table.string('name', 60).notNullable().unique();
    table.dateTime('put_away_at', { precision: 3 }).nullable();
  });
  const names = new Set<string>();
  for (const [name, column] of SIGNED) {
    const rows: { signed: string }[] = await db(name).distinct({ signed: column });
    for (const { signed } of rows) if (!NOBODY.includes(signed.trim())) names.add(signed.trim());
  }
  for (const name of [...names].sort()) await db('operators').insert({ name }).onConflict().ignore();
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('operators');
  await db.schema.dropTable('workshop');
}
