import { factsOf } from '#core/stack/families/families.ts';
import { z } from 'zod';
import { rangesOf } from '#core/collections/indexRanges.ts';
import { AppError } from '#core/errors/appError.ts';
import { spanOfPart, type RunProgram } from '#core/program/runProgram.ts';
import type { RunStroke } from '#core/program/runStroke.ts';
import { describeEvent } from '#core/run/describeEvent.ts';
import { cutMetresOf } from '#core/run/measureRun.ts';
import { isRunOver, RUN_STATES, type RunState } from '#core/run/run.ts';
import type { RunCourse, RunEvent } from '#core/run/runCourse.ts';
import type { RunStep } from '#core/run/stepRun.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { findRun, keepStrokes } from '#store/repositories/runs/runs.ts';
import { LEASE_S } from '#store/repositories/several/runLeases.ts';
import { wearTools } from '#store/repositories/bench/stations.ts';
import { timeColumn } from '#store/rows/jsonColumn.ts';
import { programColumn } from '#store/rows/programSchema.ts';

/** A run as it may be driven: what decides its next step, the version it is at, and what is sent. */
export interface DrivenRun {
  readonly course: RunCourse;
  readonly version: number;
  readonly program: RunProgram;
  readonly machineId: number;
}

const courseRow = z.object({
  machine_id: z.number(),
  state: z.enum(RUN_STATES),
  message: z.string(),
  program: programColumn.nullable(),
  part_index: z.number(),
  boot_id: z.string().nullable(),
  sent_key: z.string().nullable(),
  named: z.number(),
  out_to: z.number().nullable(),
  version: z.number(),
});

/** @throws AppError `notFound`; `conflict` for a run that was noted without being sent */
export async function findDrivenRun(db: Store, runId: number): Promise<DrivenRun> {
  const [raw, strokes] = (await Promise.all([
    db('runs').where({ id: runId }).first(Object.keys(courseRow.shape)),
    db('run_strokes').where({ run_id: runId }).pluck('stroke_index'),
  ])) as [unknown, number[]];
  if (!raw) throw new AppError('notFound', `there is no run ${runId}`);
  const row = courseRow.parse(raw);
  if (!row.program) throw new AppError('conflict', 'This run was never sent from here.');
  return {
    version: row.version,
    program: row.program,
    machineId: row.machine_id,
    course: {
      state: row.state,
      message: row.message,
      parts: row.program.parts.map((part) => ({ ...spanOfPart(part), before: part.before })),
      partIndex: row.part_index,
      sending: row.sent_key === null ? null : { key: row.sent_key, bootId: row.boot_id, outTo: row.out_to },
      named: row.named,
      reached: rangesOf(strokes),
    },
  };
}

/** A step as it is written down. */
export interface WrittenStep {
  readonly runId: number;
  /** The version that the step was worked out at. */
  readonly version: number;
  readonly before: RunCourse;
  readonly event: RunEvent;
  readonly step: RunStep;
  readonly author: string;
  /** Names this writing: tried again, it is written once. At most 36 characters. */
  readonly writeId: string;
  /** Under what its server drives the run, where there are several: refused when another has it meanwhile. */
  readonly lease?: { readonly holder: string; readonly fence: number } | undefined;
  /** What a repeat adds to the run. */
  readonly more?: { readonly strokes: readonly RunStroke[]; readonly program: RunProgram } | undefined;
}

/**
 * Writes a step of a run down: the only way in which a run's state changes. Strokes alone change no state and are one
 * statement; anything else is compared with the version it was worked out at, and kept as an event. When a run ends,
 * blade and mat wear by what was acknowledged, in the same step.
 *
 * @returns the version that the run is at now, also where this very step was written before; `null` when somebody else
 *   moved it meanwhile: nothing is written then
 */
export async function keepRunStep(db: Store, written: WrittenStep, now: Date): Promise<number | null> {
  const { runId, version, before, event, step } = written;
  if (event.kind === 'reached') {
    await keepStrokes(db, runId, step.strokes);
    return version;
  }
  if (step.course === before && step.strokes.length === 0) return version;
  try {
    return await moveRun(db, written, now);
  } catch (error) {
    if (!(error instanceof MovedMeanwhile)) throw error;
    return (await wasWritten(db, written)) ? written.version + 1 : null;
  }
}

/**
 * Whether this very event is what moved the run: a database that dies between taking a step and saying so leaves its
 * writer to try again.
 */
async function wasWritten(db: Store, { runId, version, writeId }: WrittenStep): Promise<boolean> {
  const row: unknown = await db('run_events')
    .where({ run_id: runId, version, write_id: writeId })
    .first('id');
  return row !== undefined;
}

/** Somebody else was first: what was begun is undone. */
class MovedMeanwhile extends Error {}

async function moveRun(db: Store, written: WrittenStep, now: Date): Promise<number> {
  const { runId, version, before, event, step } = written;
  return db.transaction(async (transaction) => {
    const { state, message, partIndex, sending, named } = step.course;
    const isEnd = isRunOver(state) && !isRunOver(before.state);
    if (written.lease) await requireLease(transaction, runId, written.lease);
    const moved = await transaction('runs')
      .where({ id: runId, version })
      .update({
        state,
        message: message.slice(0, 600),
        part_index: partIndex,
        sent_key: sending?.key ?? null,
        boot_id: sending?.bootId ?? null,
        out_to: sending?.outTo ?? null,
        named,
        version: version + 1,
        ...(isEnd ? { ended_at: now } : {}),
      });
    if (moved === 0) throw new MovedMeanwhile();
    // After the run itself: a stroke locks its run too, and two who lock it halfway would wait for each other.
    await keepStrokes(transaction, runId, step.strokes);
    await transaction('run_events').insert({
      run_id: runId,
      version,
      kind: event.kind,
      write_id: written.writeId,
      detail: JSON.stringify(detailOf(event)),
      state,
      message: message.slice(0, 600),
      strokes: step.course.reached.reduce((sum, [from, to]) => sum + to - from, 0),
      author: written.author,
      at: now,
    });
    if (written.more) await addStrokes(transaction, runId, written.more);
    if (isEnd) await wearByRun(transaction, runId);
    return version + 1;
  });
}

/**
 * Renewed in the same transaction, and so written: a cluster refuses one of two transactions that both wrote the lease,
 * and would let pass one that had only read it. @throws AppError `conflict`
 */
async function requireLease(
  db: Store,
  runId: number,
  { holder, fence }: NonNullable<WrittenStep['lease']>,
): Promise<void> {
  const held = await db('run_leases')
    .where({ run_id: runId, holder, fence })
    .update({ until: db.raw(`NOW(3) + INTERVAL ${LEASE_S} SECOND`) });
  if (held === 0) throw new AppError('conflict', 'Another server drives this run now.');
}

async function addStrokes(
  db: Store,
  runId: number,
  { strokes, program }: NonNullable<WrittenStep['more']>,
): Promise<void> {
  const run = await findRun(db, runId);
  await db('runs')
    .where({ id: runId })
    .update({ strokes: JSON.stringify([...run.strokes, ...strokes]), program: JSON.stringify(program) })
    .increment('repeated_strokes', strokes.length);
}

/** The blade wears by how much the material wears it. */
async function wearByRun(db: Store, runId: number): Promise<void> {
  const run = await findRun(db, runId);
  if (run.outcomes.length === 0) return;
  const tools: { blade_id: number | null; mat_id: number | null } = await db('runs')
    .where({ id: runId })
    .first('blade_id', 'mat_id');
  const { material } = await findMaterialByCondition(db, run.conditionId);
  const metres = cutMetresOf(run) * factsOf(material.family).abrasion;
  await db('runs').where({ id: runId }).update({ worn_metres: metres });
  await wearTools(db, { bladeId: tools.blade_id, matId: tools.mat_id, metres });
}

/** What a machine remembered of strokes stands with the strokes. */
function detailOf(event: RunEvent): object {
  if (event.kind !== 'remembered') return event;
  const { bootId, job } = event.memory;
  return {
    kind: event.kind,
    key: event.key,
    bootId,
    job: job && { key: job.key, state: job.state, reason: job.reason, reached: job.reached.length },
  };
}

/** A line of a run's history. */
export interface RunHistoryEntry {
  readonly kind: string;
  readonly words: string;
  readonly state: RunState;
  readonly message: string;
  /** Strokes that were acknowledged by then. */
  readonly strokes: number;
  /** Who did it; empty where nobody did. */
  readonly author: string;
  readonly at: string;
}

const eventRow = z.object({
  kind: z.string(),
  state: z.enum(RUN_STATES),
  message: z.string(),
  strokes: z.number(),
  author: z.string(),
  at: timeColumn,
});

/** What happened to a run, oldest first. */
export async function listRunEvents(db: Store, runId: number): Promise<readonly RunHistoryEntry[]> {
  const rows: unknown[] = await db('run_events')
    .where({ run_id: runId })
    .orderBy('version')
    .limit(500)
    .select(Object.keys(eventRow.shape));
  return rows.map((row) => {
    const entry = eventRow.parse(row);
    return { ...entry, words: describeEvent(entry.kind) };
  });
}

/** Runs that a server was driving when it stopped. */
export async function listDrivenRuns(db: Store): Promise<readonly number[]> {
  return (await db('runs')
    .whereIn('state', ['sending', 'cutting', 'paused', 'stopping'])
    .orderBy('id')
    .pluck('id')) as number[];
}
