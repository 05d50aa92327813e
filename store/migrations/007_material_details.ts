import type { Knex } from 'knex';

/** Everything a pack says beside name, colour and layers, and counting of changes. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('materials', (table) => {
    table.json('details').nullable();
    table.integer('version').notNullable().defaultTo(1);
    table.datetime('archived_at', { precision: 3 }).nullable();
    table.index(['name', 'id'], 'materials_by_name');
  });
  await db.schema.alterTable('material_conditions', (table) => {
    table.double('coverage').nullable();
    table.string('family', 30).notNullable().defaultTo('');
    table.double('face_um').notNullable().defaultTo(0);
    table.index(['family', 'face_um'], 'conditions_by_face');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('material_conditions', (table) => {
    table.dropIndex([], 'conditions_by_face');
    table.dropColumns('coverage', 'family', 'face_um');
  });
  await db.schema.alterTable('materials', (table) => {
    table.dropIndex([], 'materials_by_name');
    table.dropColumns('details', 'version', 'archived_at');
  });
}
