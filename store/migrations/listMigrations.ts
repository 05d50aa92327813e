import type { Knex } from 'knex';
import * as materials from '#store/migrations/001_materials.ts';
import * as stations from '#store/migrations/002_stations.ts';
import * as settings from '#store/migrations/003_settings.ts';
import * as testCuts from '#store/migrations/004_test_cuts.ts';
import * as jobsAndRuns from '#store/migrations/005_jobs_and_runs.ts';
import * as upkeep from '#store/migrations/006_upkeep.ts';

interface NamedMigration {
  readonly name: string;
  readonly migration: Knex.Migration;
}

/** All migrations in order. Each changes one thing, can be undone, and is never edited once it has landed. */
export const MIGRATIONS: readonly NamedMigration[] = [
  { name: '001_materials', migration: materials },
  { name: '002_stations', migration: stations },
  { name: '003_settings', migration: settings },
  { name: '004_test_cuts', migration: testCuts },
  { name: '005_jobs_and_runs', migration: jobsAndRuns },
  { name: '006_upkeep', migration: upkeep },
];

/** Where Knex finds them: they are compiled in, so that no file path matters. */
export const migrationSource: Knex.MigrationSource<NamedMigration> = {
  getMigrations: () => Promise.resolve([...MIGRATIONS]),
  getMigrationName: ({ name }) => name,
  getMigration: ({ migration }) => Promise.resolve(migration),
};
