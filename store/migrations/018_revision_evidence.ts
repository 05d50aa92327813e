import type { Knex } from 'knex';

/** What a revision rested on when it was kept: its trials, what they left to be believed, what else they moved. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('revision_evidence', (table) => {
    table.integer('setting_id').unsigned().notNullable().references('settings.id');
    table.integer('revision').notNullable();
    table.integer('dial_in_id').unsigned().nullable().references('dial_ins.id');
    table.integer('knowledge_id').unsigned().nullable().references('knowledge.id');
    table.json('summary').notNullable();
    table.primary(['setting_id', 'revision']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('revision_evidence');
}
