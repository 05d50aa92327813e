import type { Knex } from 'knex';

/** Sheets are found by their caliper and weight too: the words of all are written anew at the next start. */
export async function up(db: Knex): Promise<void> {
  await db('material_conditions').update({ family: '' });
}

/** What was found by before is found by still. */
export async function down(db: Knex): Promise<void> {
  await db('lookup_postings').where({ field: 'measure' }).delete();
}
