import type { Knex } from 'knex';
import * as materials from '#store/migrations/001_materials.ts';
import * as stations from '#store/migrations/002_stations.ts';
import * as settings from '#store/migrations/003_settings.ts';
import * as testCuts from '#store/migrations/004_test_cuts.ts';
import * as jobsAndRuns from '#store/migrations/005_jobs_and_runs.ts';
import * as upkeep from '#store/migrations/006_upkeep.ts';
import * as materialDetails from '#store/migrations/007_material_details.ts';
import * as machineVersions from '#store/migrations/008_machine_versions.ts';
import * as scaleCalibrations from '#store/migrations/009_scale_calibrations.ts';
import * as bladeAndMatCare from '#store/migrations/010_blade_and_mat_care.ts';
import * as lotsAndColours from '#store/migrations/011_lots_and_colours.ts';
import * as settingStates from '#store/migrations/012_setting_states.ts';
import * as audit from '#store/migrations/013_audit.ts';
import * as lookup from '#store/migrations/014_lookup.ts';
import * as dialIns from '#store/migrations/015_dial_ins.ts';
import * as knowledge from '#store/migrations/016_knowledge.ts';
import * as judgedPieces from '#store/migrations/017_judged_pieces.ts';
import * as revisionEvidence from '#store/migrations/018_revision_evidence.ts';
import * as jobDesigns from '#store/migrations/019_job_designs.ts';
import * as roleRules from '#store/migrations/020_role_rules.ts';
import * as registration from '#store/migrations/021_registration.ts';
import * as waitRoutes from '#store/migrations/027_wait_routes.ts';
import * as runResults from '#store/migrations/026_run_results.ts';
import * as waitsAndDays from '#store/migrations/025_waits_and_days.ts';
import * as faultCases from '#store/migrations/024_fault_cases.ts';
import * as drift from '#store/migrations/023_drift.ts';
import * as runEvents from '#store/migrations/028_run_events.ts';
import * as runAsCut from '#store/migrations/029_run_as_cut.ts';
import * as requestKeys from '#store/migrations/030_request_keys.ts';
import * as dialInCards from '#store/migrations/031_dial_in_cards.ts';
import * as leanKnowledge from '#store/migrations/032_lean_knowledge.ts';
import * as workshop from '#store/migrations/033_workshop.ts';
import * as testRuns from '#store/migrations/034_test_runs.ts';
import * as harmPrice from '#store/migrations/035_harm_price.ts';
import * as judgedRuns from '#store/migrations/036_judged_runs.ts';
import * as holderDials from '#store/migrations/037_holder_dials.ts';
import * as standingChecks from '#store/migrations/038_standing_checks.ts';
import * as feltTack from '#store/migrations/039_felt_tack.ts';
import * as fonts from '#store/migrations/040_fonts.ts';
import * as pictures from '#store/migrations/042_pictures.ts';
import * as measures from '#store/migrations/043_measures.ts';
import * as accounts from '#store/migrations/044_accounts.ts';
import * as lessons from '#store/migrations/047_lessons.ts';
import * as refits from '#store/migrations/048_refits.ts';
import * as servers from '#store/migrations/046_servers.ts';
import * as changes from '#store/migrations/045_changes.ts';
import * as jobDrawings from '#store/migrations/041_job_drawings.ts';
import * as runProgress from '#store/migrations/022_run_progress.ts';

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
  { name: '007_material_details', migration: materialDetails },
  { name: '008_machine_versions', migration: machineVersions },
  { name: '009_scale_calibrations', migration: scaleCalibrations },
  { name: '010_blade_and_mat_care', migration: bladeAndMatCare },
  { name: '011_lots_and_colours', migration: lotsAndColours },
  { name: '012_setting_states', migration: settingStates },
  { name: '013_audit', migration: audit },
  { name: '014_lookup', migration: lookup },
  { name: '015_dial_ins', migration: dialIns },
  { name: '016_knowledge', migration: knowledge },
  { name: '017_judged_pieces', migration: judgedPieces },
  { name: '018_revision_evidence', migration: revisionEvidence },
  { name: '019_job_designs', migration: jobDesigns },
  { name: '020_role_rules', migration: roleRules },
  { name: '021_registration', migration: registration },
  { name: '022_run_progress', migration: runProgress },
  { name: '023_drift', migration: drift },
  { name: '024_fault_cases', migration: faultCases },
  { name: '025_waits_and_days', migration: waitsAndDays },
  { name: '026_run_results', migration: runResults },
  { name: '027_wait_routes', migration: waitRoutes },
  { name: '028_run_events', migration: runEvents },
  { name: '029_run_as_cut', migration: runAsCut },
  { name: '030_request_keys', migration: requestKeys },
  { name: '031_dial_in_cards', migration: dialInCards },
  { name: '032_lean_knowledge', migration: leanKnowledge },
  { name: '033_workshop', migration: workshop },
  { name: '034_test_runs', migration: testRuns },
  { name: '035_harm_price', migration: harmPrice },
  { name: '036_judged_runs', migration: judgedRuns },
  { name: '037_holder_dials', migration: holderDials },
  { name: '038_standing_checks', migration: standingChecks },
  { name: '039_felt_tack', migration: feltTack },
  { name: '040_fonts', migration: fonts },
  { name: '041_job_drawings', migration: jobDrawings },
  { name: '042_pictures', migration: pictures },
  { name: '043_measures', migration: measures },
  { name: '044_accounts', migration: accounts },
  { name: '045_changes', migration: changes },
  { name: '046_servers', migration: servers },
  { name: '047_lessons', migration: lessons },
  { name: '048_refits', migration: refits },
];

/** Where Knex finds them: they are compiled in, so that no file path matters. */
export const migrationSource: Knex.MigrationSource<NamedMigration> = {
  getMigrations: () => Promise.resolve([...MIGRATIONS]),
  getMigrationName: ({ name }) => name,
  getMigration: ({ migration }) => Promise.resolve(migration),
};

/** The same as it was when there were only so many: the tables of an older version. */
export function migrationsUpTo(count: number): Knex.MigrationSource<NamedMigration> {
  return { ...migrationSource, getMigrations: () => Promise.resolve(MIGRATIONS.slice(0, count)) };
}
