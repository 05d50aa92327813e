import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { isRunOver, RUN_STATES, type Run, type RunState, type StrokeOutcome } from '#core/run/run.ts';
import type { RunStroke } from '#core/program/runStroke.ts';
import type { RunProgram } from '#core/program/runProgram.ts';
import type { Flaw } from '#core/stack/depthGrade.ts';
import type { RunVerdict } from '#core/setting/setting.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { indexNote } from '#store/repositories/book/lookup.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { refreshStates } from '#store/repositories/book/settingStates.ts';
import { readOutcomeRow, readRunRow } from '#store/rows/jobRows.ts';

/** A run before it starts. */
export interface NewRun {
  readonly jobId: number;
  readonly machineId: number;
  readonly conditionId: number;
  readonly sheetWidthMm: number;
  readonly sheetHeightMm: number;
  readonly strokes: readonly RunStroke[];
  readonly seconds: number;
  readonly author: string;
  readonly lot?: string;
  readonly colour?: string;
  /** Travel of the blade before the run, m; `null` when no blade is known. */
  readonly bladeMetres?: number | null;
  readonly bladeId?: number | null;
  readonly matId?: number | null;
  readonly matUses?: number | null;
  readonly sheetNumber?: number;
  /** Sent twice, a request makes one run. */
  readonly requestKey?: string;
  readonly program?: RunProgram;
  /** Which settings it uses, at which revision, and the values they were cut with after lot and colour. */
  readonly settings: readonly {
    readonly settingId: number;
    readonly revision: number;
    readonly cutValues?: SettingValues | undefined;
  }[];
}

/** How a run went, as noted by a person. */
export interface RunNote {
  readonly verdict: RunVerdict;
  readonly piecesGood: number;
  readonly piecesSpoiled: number;
  readonly note: string;
  readonly flaws?: readonly Flaw[];
  readonly sheetsUsed?: number;
  readonly humidity?: number | null;
}

/** States in which a sheet lies in the machine. */
export const UNFINISHED: readonly RunState[] = RUN_STATES.filter((state) => !isRunOver(state));

/**
 * Adds a run; a request that was made before gives the run it made.
 *
 * @throws AppError `conflict` while another run has its sheet in the machine
 */
export async function startRun(
  db: Store,
  run: NewRun & { readonly requestKey: string },
  now: Date,
): Promise<{ readonly id: number; readonly isNew: boolean }> {
  return db.transaction(async (transaction) => {
    // One at a time for a machine: two clicks, two tabs or two people get one run.
    await transaction('machines').where({ id: run.machineId }).forUpdate().first('id');
    const before: { id: number } | undefined = await transaction('runs')
      .where({ request_key: run.requestKey })
      .first('id');
    if (before) return { id: before.id, isNew: false };
    const other: { id: number; name: string } | undefined = await transaction('runs')
      .join('jobs', 'jobs.id', 'runs.job_id')
      .where('runs.machine_id', run.machineId)
      .whereIn('runs.state', [...UNFINISHED])
      .first('runs.id', 'jobs.name');
    if (other) {
      throw new AppError(
        'conflict',
        `The sheet of "${other.name}" is still in this machine: unload or stop it first.`,
        { runId: other.id },
      );
    }
    return { id: await addRun(transaction, run, now), isNew: true };
  });
}

/** Writes down what strokes reached. Said twice, a stroke is written once. */
export async function keepStrokes(
  db: Store,
  runId: number,
  strokes: readonly StrokeOutcome[],
): Promise<void> {
  if (strokes.length === 0) return;
  const rows = strokes.map(({ index, spans }) => ({
    run_id: runId,
    stroke_index: index,
    spans: JSON.stringify(spans),
  }));
  await db('run_strokes').insert(rows).onConflict().ignore();
}

/** A run that is over, as it is told afterwards. */
export interface PastRun {
  readonly endedAt: Date;
  readonly outcomes: readonly StrokeOutcome[];
}

/** Adds a run that begins now, or one that is told afterwards. @returns its id */
export async function addRun(db: Store, run: NewRun, now: Date, past?: PastRun): Promise<number> {
  return db.transaction(async (transaction) => {
    const [id] = await transaction('runs').insert({
      job_id: run.jobId,
      machine_id: run.machineId,
      condition_id: run.conditionId,
      state: past ? 'done' : 'sending',
      ended_at: past?.endedAt ?? null,
      message: '',
      sheet_width_mm: run.sheetWidthMm,
      sheet_height_mm: run.sheetHeightMm,
      strokes: JSON.stringify(run.strokes),
      seconds: run.seconds,
      pieces_good: 0,
      pieces_spoiled: 0,
      note: '',
      author: run.author,
      lot: run.lot ?? '',
      colour: run.colour ?? '',
      blade_metres: run.bladeMetres ?? null,
      blade_id: run.bladeId ?? null,
      mat_id: run.matId ?? null,
      mat_uses: run.matUses ?? null,
      sheet_number: run.sheetNumber ?? 1,
      request_key: run.requestKey ?? null,
      program: run.program ? JSON.stringify(run.program) : null,
      started_at: now,
    });
    for (const { settingId, revision, cutValues } of run.settings) {
      await transaction('run_settings').insert({
        run_id: id,
        setting_id: settingId,
        revision,
        cut_values: cutValues ? JSON.stringify(cutValues) : null,
      });
    }
    if (past) await keepStrokes(transaction, id as number, past.outcomes);
    return id as number;
  });
}

/** @throws AppError `notFound` */
export async function findRun(db: Store, id: number): Promise<Run> {
  const row = await db('runs')
    .join('jobs', 'jobs.id', 'runs.job_id')
    .where('runs.id', id)
    .select('runs.*', { job_name: 'jobs.name', dial_in_id: 'jobs.dial_in_id', judged: 'jobs.judged' })
    .first();
  if (!row) throw new AppError('notFound', `there is no run ${id}`);
  const outcomes = await db('run_strokes').where({ run_id: id }).orderBy('stroke_index');
  return readRunRow(row, outcomes.map(readOutcomeRow));
}

/** @throws AppError `notFound`; `conflict` while the run is still going */
export async function noteRun(
  db: Store,
  id: number,
  note: RunNote,
  author: string,
  now: Date,
): Promise<void> {
  await db.transaction(async (transaction) => {
    const run = await findRun(transaction, id);
    if (UNFINISHED.includes(run.state)) {
      throw new AppError('conflict', 'The run is still going. Note it when it is over.');
    }
    await transaction('runs')
      .where({ id })
      .update({
        verdict: note.verdict,
        pieces_good: note.piecesGood,
        pieces_spoiled: note.piecesSpoiled,
        note: note.note,
        flaws: JSON.stringify(note.flaws ?? []),
        sheets_used: note.sheetsUsed ?? 1,
        humidity: note.humidity ?? null,
        author,
        noted_at: now,
      });
    const { material } = await findMaterialByCondition(transaction, run.conditionId);
    if (note.note) await indexNote(transaction, material.id, note.note);
    const used: { setting_id: number }[] = await transaction('run_settings').where({ run_id: id });
    for (const { setting_id } of used) await refreshStates(transaction, { id: setting_id });
  });
}

/** The newest relative humidity that was noted with a run since a time, %, or `null`. */
export async function findHumidity(db: Store, since: Date): Promise<number | null> {
  const row: { humidity: number } | undefined = await db('runs')
    .whereNotNull('humidity')
    .where('started_at', '>=', since)
    .orderBy('started_at', 'desc')
    .first('humidity');
  return row?.humidity ?? null;
}

/** Ids of the runs of a job, the newest first. */
export async function listRunsOfJob(db: Store, jobId: number): Promise<readonly number[]> {
  const rows: { id: number }[] = await db('runs')
    .where({ job_id: jobId })
    .orderBy('started_at', 'desc')
    .limit(200)
    .select('id');
  return rows.map(({ id }) => id);
}

const headRow = z.object({ state: z.enum(RUN_STATES), message: z.string() });

/** The state of a run alone. @throws AppError `notFound` */
export async function findRunHead(
  db: Store,
  runId: number,
): Promise<{ readonly state: RunState; readonly message: string }> {
  const row: unknown = await db('runs').where({ id: runId }).first('state', 'message');
  if (!row) throw new AppError('notFound', `there is no run ${runId}`);
  return headRow.parse(row);
}

/** Strokes that were acknowledged, but for those that are known. */
export async function listStrokesBut(
  db: Store,
  runId: number,
  known: ReadonlySet<number>,
): Promise<readonly StrokeOutcome[]> {
  const all: number[] = await db('run_strokes').where({ run_id: runId }).pluck('stroke_index');
  const fresh = all.filter((index) => !known.has(index));
  if (fresh.length === 0) return [];
  const rows: unknown[] = await db('run_strokes')
    .where({ run_id: runId })
    .whereIn('stroke_index', fresh)
    .orderBy('stroke_index');
  return rows.map(readOutcomeRow);
}
