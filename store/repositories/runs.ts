import { AppError } from '#core/errors/appError.ts';
import type { Run, RunState, RunStroke, StrokeOutcome } from '#core/job/run.ts';
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
  /** Which settings it uses, at which revision. */
  readonly settings: readonly { readonly settingId: number; readonly revision: number }[];
}

/** How a run went, as noted by a person. */
export interface RunNote {
  readonly verdict: RunVerdict;
  readonly piecesGood: number;
  readonly piecesSpoiled: number;
  readonly note: string;
}

const UNFINISHED: readonly RunState[] = ['sending', 'cutting', 'waiting'];

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
    await transaction('runs').where({ id }).update({
      verdict: note.verdict,
      pieces_good: note.piecesGood,
      pieces_spoiled: note.piecesSpoiled,
      note: note.note,
      author,
      noted_at: now,
    });
    const { material } = await findMaterialByCondition(transaction, run.conditionId);
    if (note.note) await indexNote(transaction, material.id, note.note);
    const used: { setting_id: number }[] = await transaction('run_settings').where({ run_id: id });
    for (const { setting_id } of used) await refreshStates(transaction, { id: setting_id });
  });
}

/** Marks runs that were going when the server stopped: nobody can say how far they got. Returns how many. */
export async function giveUpUnfinishedRuns(db: Store, now: Date): Promise<number> {
  return db('runs')
    .whereIn('state', [...UNFINISHED])
    .update({
      state: 'unknown',
      message:
        'The server stopped during this run. Look at the sheet: strokes shown as cut were reported, the rest is unknown.',
      ended_at: now,
    });
}
