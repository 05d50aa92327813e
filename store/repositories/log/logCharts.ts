import { dayOf } from '#core/time/workshopTime.ts';
import { z } from 'zod';
import type { Store } from '#store/connection/connectStore.ts';
import { programColumn } from '#store/rows/programSchema.ts';
import { jsonColumn } from '#store/rows/jsonColumn.ts';

/** A force that was asked of a blade after so many metres. */
export interface ForceAsked {
  readonly machine: string;
  readonly operation: string;
  readonly force: number;
  readonly bladeMetres: number;
  readonly source: 'test cut' | 'run';
}

/** How runs of a material went. */
export interface SuccessOfMaterial {
  readonly material: string;
  readonly clean: number;
  readonly someSpoiled: number;
  readonly failed: number;
}

/** Sheets of one month: those cut for tests and those cut for jobs, and what was spoiled of them. */
export interface MonthOfSheets {
  /** "2026-03". */
  readonly month: string;
  readonly tests: number;
  readonly production: number;
  /** Price of what was spoiled or cut for tests, where prices are known. */
  readonly waste: number;
}

/** The shift of print and cut on one sheet, mm. */
export interface ShiftOverTime {
  readonly at: string;
  readonly machine: string;
  readonly mm: number;
}

/** Everything the charts of the log are drawn from. */
export interface LogCharts {
  readonly forces: readonly ForceAsked[];
  readonly success: readonly SuccessOfMaterial[];
  readonly months: readonly MonthOfSheets[];
  readonly shifts: readonly ShiftOverTime[];
  readonly currency: string;
}

/** A test piece takes about this share of a sheet. Common practice, no source. */
const TEST_SHARE = 0.05;
const MOST_POINTS = 600;

export async function readLogCharts(db: Store, zone: string): Promise<LogCharts> {
  const [forces, success, sheets, shifts] = await Promise.all([
    readForces(db),
    readSuccess(db),
    readMonths(db, zone),
    readShifts(db),
  ]);
  return { forces, success, ...sheets, shifts };
}

async function readForces(db: Store): Promise<readonly ForceAsked[]> {
  const cuts: { machine: string; operation: string; force_value: number; blade_metres: number }[] = await db(
    'test_cuts',
  )
    .join('machines', 'machines.id', 'test_cuts.machine_id')
    .whereNull('test_cuts.undone_at')
    .orderBy('test_cuts.id', 'desc')
    .limit(MOST_POINTS)
    .select('test_cuts.operation', 'test_cuts.force_value', 'test_cuts.blade_metres', {
      machine: 'machines.name',
    });
  const runs: { machine: string; program: unknown; blade_metres: number }[] = await db('runs')
    .join('machines', 'machines.id', 'runs.machine_id')
    .whereNotNull('runs.program')
    .whereNotNull('runs.blade_metres')
    .orderBy('runs.id', 'desc')
    .limit(MOST_POINTS)
    .select('runs.program', 'runs.blade_metres', { machine: 'machines.name' });
  return [
    ...cuts.map((cut) => ({
      machine: cut.machine,
      operation: cut.operation,
      force: cut.force_value,
      bladeMetres: cut.blade_metres,
      source: 'test cut' as const,
    })),
    ...runs.flatMap((run) =>
      programColumn
        .parse(run.program)
        .parts.flatMap(({ passes }) => passes)
        .map(({ operation, values }) => ({
          machine: run.machine,
          operation,
          force: values.force,
          bladeMetres: run.blade_metres,
          source: 'run' as const,
        })),
    ),
  ];
}

async function readSuccess(db: Store): Promise<readonly SuccessOfMaterial[]> {
  const rows: { material: string; verdict: string; count: number }[] = await db('runs')
    .join('material_conditions', 'material_conditions.id', 'runs.condition_id')
    .join('materials', 'materials.id', 'material_conditions.material_id')
    .whereNotNull('runs.verdict')
    .groupBy('materials.name', 'runs.verdict')
    .select({ material: 'materials.name' }, 'runs.verdict', db.raw('count(*) as count'));
  const found = new Map<string, { clean: number; someSpoiled: number; failed: number }>();
  for (const { material, verdict, count } of rows) {
    const own = found.get(material) ?? { clean: 0, someSpoiled: 0, failed: 0 };
    found.set(material, { ...own, [verdict]: Number(count) });
  }
  return [...found]
    .map(([material, counts]) => ({ material, ...counts }))
    .sort((a, b) => b.clean + b.someSpoiled + b.failed - (a.clean + a.someSpoiled + a.failed));
}

/** No zone is nearer to UTC than to a quarter of an hour, s. */
const QUARTER_S = 900;

async function readMonths(
  db: Store,
  zone: string,
): Promise<{ readonly months: readonly MonthOfSheets[]; readonly currency: string }> {
  const price = "CAST(JSON_VALUE(materials.details, '$.stock.price') AS DOUBLE)";
  const quarterOf = (column: string) =>
    db.raw(`FLOOR(TIMESTAMPDIFF(SECOND, '1970-01-01', ${column}) / ${QUARTER_S}) as quarter`);
  const cuts: { quarter: number; sheet: string; waste: number | null }[] = await db('test_cuts')
    .join('material_conditions', 'material_conditions.id', 'test_cuts.condition_id')
    .join('materials', 'materials.id', 'material_conditions.material_id')
    .whereNull('test_cuts.undone_at')
    .groupBy('quarter', 'sheet')
    .select(
      quarterOf('test_cuts.at'),
      db.raw("concat_ws('/', test_cuts.condition_id, test_cuts.machine_id) as sheet"),
      db.raw(`sum(coalesce(${price}, 0)) * ${TEST_SHARE} as waste`),
    );
  const runs: { quarter: number; sheets: number; waste: number | null }[] = await db('runs')
    .join('material_conditions', 'material_conditions.id', 'runs.condition_id')
    .join('materials', 'materials.id', 'material_conditions.material_id')
    .whereNotNull('runs.ended_at')
    .groupBy('quarter')
    .select(
      quarterOf('runs.started_at'),
      db.raw('count(*) as sheets'),
      db.raw(
        `sum(coalesce(${price}, 0) * runs.pieces_spoiled / greatest(1, runs.pieces_good + runs.pieces_spoiled)) as waste`,
      ),
    );
  const dayAt = (quarter: number) => dayOf(new Date(Number(quarter) * QUARTER_S * 1000), zone);
  // One sheet a day is taken for the test cuts of a material on a machine.
  const seen = new Set<string>();
  const tests = cuts.map(({ quarter, sheet, waste }) => {
    const day = dayAt(quarter);
    const isNew = !seen.has(`${day}/${sheet}`);
    seen.add(`${day}/${sheet}`);
    return { month: day.slice(0, 7), sheets: isNew ? 1 : 0, waste };
  });
  const made = runs.map(({ quarter, ...rest }) => ({ ...rest, month: dayAt(quarter).slice(0, 7) }));
  const months = new Map<string, MonthOfSheets>();
  const own = (month: string) => months.get(month) ?? { month, tests: 0, production: 0, waste: 0 };
  for (const { month, sheets, waste } of tests) {
    const { tests: before, waste: lost, ...rest } = own(month);
    months.set(month, { ...rest, tests: before + sheets, waste: lost + Number(waste) });
  }
  for (const { month, sheets, waste } of made) {
    const { production: before, waste: lost, ...rest } = own(month);
    months.set(month, { ...rest, production: before + Number(sheets), waste: lost + Number(waste) });
  }
  const named: { currency: string | null } | undefined = await db('materials').first(
    db.raw("JSON_VALUE(details, '$.stock.currency') as currency"),
  );
  return {
    months: [...months.values()].sort((a, b) => a.month.localeCompare(b.month)),
    currency: named?.currency ?? 'EUR',
  };
}

async function readShifts(db: Store): Promise<readonly ShiftOverTime[]> {
  const rows: { at: Date; machine: string; readings: unknown }[] = await db('registration_sheets')
    .join('machines', 'machines.id', 'registration_sheets.machine_id')
    .whereNull('registration_sheets.removed_at')
    .orderBy('registration_sheets.at')
    .select('registration_sheets.at', 'registration_sheets.readings', { machine: 'machines.name' });
  const readings = jsonColumn(z.array(z.object({ shift: z.object({ x: z.number(), y: z.number() }) })));
  return rows.map((row) => {
    const shifts = readings.parse(row.readings).map(({ shift }) => Math.hypot(shift.x, shift.y));
    const mm = shifts.reduce((sum, one) => sum + one, 0) / Math.max(1, shifts.length);
    return { at: row.at.toISOString(), machine: row.machine, mm };
  });
}
