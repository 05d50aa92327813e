import type { Knex } from 'knex';

/** Deep and standard holders have dials of their own: the same number means another depth. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('blades', (table) => {
    table.double('dial_mm_per_step').nullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('blades', (table) => {
    table.dropColumn('dial_mm_per_step');
  });
}
