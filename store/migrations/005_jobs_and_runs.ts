import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('jobs', (table) => {
    table.increments('id');
    table.string('name', 120).notNullable();
    table.specificType('svg', 'MEDIUMTEXT').notNullable();
    table.json('roles').notNullable();
    table.boolean('are_roles_guessed').notNullable();
    table.json('sheet').notNullable();
    table.json('placement').notNullable();
    table.integer('condition_id').unsigned().notNullable().references('material_conditions.id');
    table.integer('machine_id').unsigned().notNullable().references('machines.id');
    table.integer('version').notNullable();
    table.datetime('updated_at', { precision: 3 }).notNullable().index();
  });
  await db.schema.createTable('runs', (table) => {
    table.increments('id');
    table.integer('job_id').unsigned().notNullable().references('jobs.id');
    table.integer('machine_id').unsigned().notNullable().references('machines.id');
    table.integer('condition_id').unsigned().notNullable().references('material_conditions.id');
    table.string('state', 20).notNullable();
    table.string('message', 300).notNullable();
    table.double('sheet_width_mm').notNullable();
    table.double('sheet_height_mm').notNullable();
    table.specificType('strokes', 'LONGTEXT').notNullable();
    table.double('seconds').notNullable();
    table.string('verdict', 20).nullable();
    table.integer('pieces_good').notNullable();
    table.integer('pieces_spoiled').notNullable();
    table.string('note', 1000).notNullable();
    table.string('author', 60).notNullable();
    table.datetime('started_at', { precision: 3 }).notNullable().index();
    table.datetime('ended_at', { precision: 3 }).nullable();
    table.datetime('noted_at', { precision: 3 }).nullable();
  });
  await db.schema.createTable('run_strokes', (table) => {
    table.integer('run_id').unsigned().notNullable().references('runs.id');
    table.integer('stroke_index').notNullable();
    table.json('spans').notNullable();
    table.primary(['run_id', 'stroke_index']);
  });
  await db.schema.createTable('run_settings', (table) => {
    table.integer('run_id').unsigned().notNullable().references('runs.id');
    table.integer('setting_id').unsigned().notNullable().references('settings.id');
    table.integer('revision').notNullable();
    table.primary(['run_id', 'setting_id']);
    table.index(['setting_id', 'revision']);
  });
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['run_settings', 'run_strokes', 'runs', 'jobs']) await db.schema.dropTable(table);
}
