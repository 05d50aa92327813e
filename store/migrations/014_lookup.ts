import type { Knex } from 'knex';

/** Words that name a material, and three-letter pieces of the words, so that slips of the finger find them. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('lookup_terms', (table) => {
    table.increments('id');
    table.specificType('term', 'VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL').unique();
    table.integer('length').notNullable();
  });
  await db.schema.createTable('lookup_grams', (table) => {
    table.specificType('gram', 'VARCHAR(3) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL');
    table.integer('term_id').unsigned().notNullable();
    table.primary(['gram', 'term_id']);
    table.foreign('term_id').references('lookup_terms.id');
  });
  await db.schema.createTable('lookup_postings', (table) => {
    table.integer('term_id').unsigned().notNullable();
    table.integer('material_id').unsigned().notNullable();
    table.string('field', 12).notNullable();
    table.primary(['term_id', 'material_id', 'field']);
    table.index(['material_id', 'field']);
    table.foreign('term_id').references('lookup_terms.id');
    table.foreign('material_id').references('materials.id');
  });
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['lookup_postings', 'lookup_grams', 'lookup_terms']) await db.schema.dropTable(table);
}
