import type { Knex } from 'knex';

/** A mat's tack is tested by hand: how it felt, over what was reckoned of it then. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('mats', (table) => {
    table.double('felt_share').nullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('mats', (table) => {
    table.dropColumn('felt_share');
  });
}
