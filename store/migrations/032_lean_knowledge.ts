import type { Knex } from 'knex';

/** Where the next fit starts is of use in the newest fit alone; older ones that settings refer to are kept without it. */
export async function up(db: Knex): Promise<void> {
  const newest: { id: number } | undefined = await db('knowledge').orderBy('id', 'desc').first('id');
  if (!newest) return;
  await db('knowledge')
    .where('id', '<', newest.id)
    .update({ fitted: db.raw("JSON_SET(fitted, '$.own', JSON_OBJECT())") });
}

/** What was left out was of no use, so nothing is missed. */
export function down(): Promise<void> {
  return Promise.resolve();
}
