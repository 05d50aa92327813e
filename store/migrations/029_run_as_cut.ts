import type { Knex } from 'knex';

/** What a run was really cut with, setting by setting. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('run_settings', (table) => {
    table.json('cut_values').nullable();
  });
  const rows: { run_id: number; setting_id: number; operation: string; program: string | object }[] =
    await db('run_settings')
      .join('runs', 'runs.id', 'run_settings.run_id')
      .join('settings', 'settings.id', 'run_settings.setting_id')
      .whereNotNull('runs.program')
      .select('run_settings.run_id', 'run_settings.setting_id', 'settings.operation', 'runs.program');
  for (const { run_id, setting_id, operation, program } of rows) {
    const values = valuesOf(program, operation);
    if (values) {
      await db('run_settings')
        .where({ run_id, setting_id })
        .update({ cut_values: JSON.stringify(values) });
    }
  }
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('run_settings', (table) => table.dropColumn('cut_values'));
}

interface Program {
  readonly parts?: readonly {
    readonly passes: readonly { readonly operation: string; readonly values: unknown }[];
  }[];
}

/** A slit is cut with the setting of the through cut; every other role with its own. */
function valuesOf(text: string | object, operation: string): unknown {
  const program = (typeof text === 'string' ? JSON.parse(text) : text) as Program;
  const passes = program.parts?.flatMap((part) => part.passes) ?? [];
  const roles = operation === 'through' ? ['through', 'slit'] : [operation];
  return passes.find((pass) => roles.includes(pass.operation))?.values;
}
