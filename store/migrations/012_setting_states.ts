import type { Knex } from 'knex';

/** The state of a setting beside it, so that the book can be read in pages; locks and putting away. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('settings', (table) => {
    table.integer('newest_revision').notNullable().defaultTo(0);
    table.string('state', 20).notNullable().defaultTo('predicted');
    table.string('state_reason', 200).notNullable().defaultTo('');
    table.string('locked_by', 60).notNullable().defaultTo('');
    table.datetime('archived_at', { precision: 3 }).nullable();
    table.index(['archived_at', 'state', 'id'], 'settings_by_state');
  });
  await db.raw(
    `UPDATE settings SET newest_revision =
      (SELECT COALESCE(MAX(revision), 0) FROM setting_revisions WHERE setting_id = settings.id)`,
  );
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('settings', (table) => {
    table.dropIndex([], 'settings_by_state');
    table.dropColumns('newest_revision', 'state', 'state_reason', 'locked_by', 'archived_at');
  });
}
