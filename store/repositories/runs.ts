import { AppError } from '#core/errors/appError.ts';
import type { Run, RunState, RunStroke, StrokeOutcome } from '#core/run/run.ts';
import type { RunProgram } from '#core/program/runProgram.ts';
import type { Flaw } from '#core/stack/depthGrade.ts';
import type { RunVerdict } from '#core/setting/setting.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { indexNote } from '#store/repositories/lookup.ts';
import { findMaterialByCondition } from '#store/repositories/materials.ts';
import { refreshStates } from '#store/repositories/settingStates.ts';
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
  /** Travel of the blade before the run, m; `null` when no blade is known. */
  readonly bladeMetres?: number | null;
  readonly bladeId?: number | null;
  readonly matId?: number | null;
  readonly matUses?: number | null;
  readonly sheetNumber?: number;
  /** Sent twice, a request makes one run. */
  readonly requestKey?: string;
  readonly program?: RunProgram;
  /** Which settings it uses, at which revision. */
  readonly settings: readonly { readonly settingId: number; readonly revision: number }[];
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
export const UNFINISHED: readonly RunState[] = ['sending', 'cutting', 'paused', 'waiting', 'held', 'looking'];

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

export async function addRun(db: Store, run: NewRun, now: Date): Promise<number> {
  return db.transaction(async (transaction) => {
    const [id] = await transaction('runs').insert({
      job_id: run.jobId,
      machine_id: run.machineId,
      condition_id: run.conditionId,
      state: 'sending',
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
      blade_metres: run.bladeMetres ?? null,
      blade_id: run.bladeId ?? null,
      mat_id: run.matId ?? null,
      mat_uses: run.matUses ?? null,
      sheet_number: run.sheetNumber ?? 1,
      request_key: run.requestKey ?? null,
      program: run.program ? JSON.stringify(run.program) : null,
      started_at: now,
    });
    for (const { settingId, revision } of run.settings) {
      await transaction('run_settings').insert({ run_id: id, setting_id: settingId, revision });
    }
    return id as number;
  });
}

/** @throws AppError `notFound` */
export async function findRun(db: Store, id: number): Promise<Run> {
  const row = await db('runs')
    .join('jobs', 'jobs.id', 'runs.job_id')
    .where('runs.id', id)
    .select('runs.*', { job_name: 'jobs.name' })
    .first();
  if (!row) throw new AppError('notFound', `there is no run ${id}`);
  const outcomes = await db('run_strokes').where({ run_id: id }).orderBy('stroke_index');
  return readRunRow(row, outcomes.map(readOutcomeRow));
}

/** Sets the state of a run; `endedAt` when it is over. */
export async function setRunState(
  db: Store,
  id: number,
  state: RunState,
  message: string,
  endedAt: Date | null,
): Promise<void> {
  await db('runs')
    .where({ id })
    .update({ state, message: message.slice(0, 300), ended_at: endedAt });
}

/**
 * Moves a run from one state to another, once: of two requests at the same moment one moves it.
 *
 * @throws AppError `notFound`; `conflict` with `refusal` when it is in none of the states
 */
export async function moveRun(
  db: Store,
  id: number,
  from: readonly RunState[],
  to: RunState,
  refusal: string,
): Promise<void> {
  const moved = await db('runs')
    .where({ id })
    .whereIn('state', [...from])
    .update({ state: to, message: '' });
  if (moved > 0) return;
  await findRun(db, id);
  throw new AppError('conflict', refusal);
}

/** Records what a stroke reached. Said twice, it is recorded once. */
export async function addStrokeOutcome(db: Store, runId: number, outcome: StrokeOutcome): Promise<void> {
  await db('run_strokes')
    .insert({ run_id: runId, stroke_index: outcome.index, spans: JSON.stringify(outcome.spans) })
    .onConflict()
    .ignore();
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
