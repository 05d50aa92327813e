import type { Knex } from 'knex';

/** What a blade is made of and what was done to blades and mats. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('blades', (table) => {
    table.double('reach_mm').nullable();
    table.string('holder', 60).notNullable().defaultTo('');
    table.boolean('is_hard_metal').notNullable().defaultTo(false);
    table.datetime('cleaned_at', { precision: 3 }).nullable();
    table.datetime('retired_at', { precision: 3 }).nullable();
  });
  await db.schema.alterTable('mats', (table) => {
    table.integer('uses_at_restick').notNullable().defaultTo(0);
    table.integer('uses_at_cleaning').notNullable().defaultTo(0);
    table.datetime('first_used_at', { precision: 3 }).nullable();
    table.boolean('has_grooves').notNullable().defaultTo(false);
    table.boolean('is_for_fine_work').notNullable().defaultTo(false);
    table.datetime('retired_at', { precision: 3 }).nullable();
  });
  await db.schema.alterTable('upkeep_entries', (table) => {
    table.integer('blade_id').unsigned().nullable().references('blades.id');
    table.integer('mat_id').unsigned().nullable().references('mats.id');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('upkeep_entries', (table) => {
    table.dropForeign('blade_id');
    table.dropForeign('mat_id');
    table.dropColumns('blade_id', 'mat_id');
  });
  await db.schema.alterTable('mats', (table) =>
    table.dropColumns(
      'uses_at_restick',
      'uses_at_cleaning',
      'first_used_at',
      'has_grooves',
      'is_for_fine_work',
      'retired_at',
    ),
  );
  await db.schema.alterTable('blades', (table) =>
    table.dropColumns('reach_mm', 'holder', 'is_hard_metal', 'cleaned_at', 'retired_at'),
  );
}
