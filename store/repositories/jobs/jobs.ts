import { itemAt } from '#core/collections/itemAt.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Job, JobDrawing, JobHead, KeptDrawing } from '#core/job/job.ts';
import type { Run } from '#core/run/run.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { claimPictures } from '#store/repositories/jobs/pictures.ts';
import {
  appendSource,
  changeDrawing,
  insertDrawing,
  noDrawing,
  PART_CHARACTERS,
  type DrawingChange,
} from '#store/repositories/jobs/drawingRows.ts';
import {
  DRAWING_HEAD_COLUMNS,
  JOB_HEAD_COLUMNS,
  KEPT_DRAWING_COLUMNS,
  readJobHeadRow,
  readKeptDrawing,
  readJobRow,
} from '#store/rows/jobRows.ts';

export interface NewJob extends Omit<Job, 'id' | 'version' | 'updatedAt'> {
  /** The search that it cuts test pieces for; such a job stands in no list. */
  readonly dialInId?: number;
  /** What of it is judged where it is cut for that alone; it stands in no list either. */
  readonly judged?: Run['judged'];
}
type Changeable = Pick<
  Job,
  | 'name'
  | 'drawingName'
  | 'roles'
  | 'lineRoles'
  | 'edits'
  | 'sheet'
  | 'layout'
  | 'print'
  | 'passes'
  | 'conditionId'
  | 'machineId'
>;
/** What is not named, or named undefined, stays. */
export type JobChange = { readonly [Field in keyof Changeable]?: Changeable[Field] | undefined } & {
  /** Changes of further drawings. */
  readonly moreDrawings?: readonly DrawingChange[] | undefined;
  /** Out of the list, with everything kept. */
  readonly isPutAway?: boolean | undefined;
};

const JSON_COLUMNS = [
  ['roles', 'roles'],
  ['lineRoles', 'line_roles'],
  ['edits', 'edits'],
  ['sheet', 'sheet'],
  ['layout', 'layout'],
  ['print', 'print'],
  ['passes', 'passes'],
] as const;

/** A job in a list, without its drawing. */
export interface JobSummary {
  readonly id: number;
  readonly name: string;
  readonly conditionId: number;
  readonly machineId: number;
  readonly version: number;
  readonly isPutAway: boolean;
  readonly updatedAt: string;
}

interface SummaryRow {
  readonly id: number;
  readonly name: string;
  readonly condition_id: number;
  readonly machine_id: number;
  readonly version: number;
  readonly archived_at: Date | null;
  readonly updated_at: Date;
}

/** Jobs, the last changed first. @param isAwayToo those put away among them */
export async function listJobs(db: Store, isAwayToo = false): Promise<readonly JobSummary[]> {
  const query = db('jobs')
    .whereNull('dial_in_id')
    .whereNull('judged')
    .select('id', 'name', 'condition_id', 'machine_id', 'version', 'archived_at', 'updated_at')
    .orderBy([{ column: 'updated_at', order: 'desc' }, 'id']);
  const rows: readonly SummaryRow[] = await (isAwayToo ? query : query.whereNull('archived_at'));
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    conditionId: row.condition_id,
    machineId: row.machine_id,
    version: row.version,
    isPutAway: row.archived_at !== null,
    updatedAt: row.updated_at.toISOString(),
  }));
}

/** @throws AppError `notFound` */
export async function findJob(db: Store, id: number): Promise<Job> {
  const [row, drawings] = await Promise.all([
    db('jobs').where({ id }).first(),
    db('job_drawings').where({ job_id: id }).orderBy('number'),
  ]);
  if (!row) throw new AppError('notFound', `there is no job ${id}`);
  return readJobRow(row, drawings);
}

/** One drawing of a job by its number, without reading the others. @throws AppError `notFound` */
export async function findDrawing(db: Store, jobId: number, number: number): Promise<KeptDrawing> {
  const row = await (
    number === 0 ? db('jobs').where({ id: jobId }) : db('job_drawings').where({ job_id: jobId, number })
  ).first(KEPT_DRAWING_COLUMNS);
  if (row) return readKeptDrawing(row);
  await findJobHead(db, jobId);
  throw noDrawing(number);
}

/** A job without reading its drawings. @throws AppError `notFound` */
export async function findJobHead(db: Store, id: number): Promise<JobHead> {
  const [row, drawings] = await Promise.all([
    db('jobs').where({ id }).first(JOB_HEAD_COLUMNS),
    db('job_drawings').where({ job_id: id }).orderBy('number').select(DRAWING_HEAD_COLUMNS),
  ]);
  if (!row) throw new AppError('notFound', `there is no job ${id}`);
  return readJobHeadRow(row, drawings);
}

export async function addJob(db: Store, job: NewJob, now: Date): Promise<number> {
  const { moreDrawings = [], source } = job;
  if (source.length <= PART_CHARACTERS && moreDrawings.length === 0) return insertJob(db, job, source, now);
  return db.transaction(async (transaction) => {
    const id = await insertJob(transaction, job, '', now);
    await appendSource(transaction, 'jobs', { id }, source);
    for (const drawing of moreDrawings) await insertDrawing(transaction, id, drawing);
    return id;
  });
}

async function insertJob(db: Store, job: NewJob, source: string, now: Date): Promise<number> {
  await claimPictures(db, job.source);
  const [id] = await db('jobs').insert({
    name: job.name,
    format: job.format,
    // As bytes: a text would be searched for every character that must be marked.
    source: db.raw('CONVERT(? USING utf8mb4)', [Buffer.from(source)]),
    roles: JSON.stringify(job.roles),
    line_roles: JSON.stringify(job.lineRoles),
    are_roles_guessed: job.areRolesGuessed,
    edits: JSON.stringify(job.edits),
    sheet: JSON.stringify(job.sheet),
    layout: JSON.stringify(job.layout),
    print: JSON.stringify(job.print),
    passes: JSON.stringify(job.passes),
    condition_id: job.conditionId,
    machine_id: job.machineId,
    ...(job.dialInId === undefined ? {} : { dial_in_id: job.dialInId }),
    ...(job.judged ? { judged: job.judged } : {}),
    ...(job.drawingName === undefined ? {} : { drawing_name: job.drawingName }),
    ...lastDrawingOf(job),
    version: 1,
    updated_at: now,
  });
  return id as number;
}

function lastDrawingOf({ moreDrawings = [] }: NewJob): { readonly last_drawing?: number } {
  const numbers = moreDrawings.map(({ number }) => number);
  return numbers.length === 0 ? {} : { last_drawing: Math.max(...numbers) };
}

/**
 * Changes a job. Roles given by hand are guesses no longer.
 *
 * @param seenVersion the version its author saw
 * @throws AppError `conflict` when somebody else changed it meanwhile; `notFound`
 */
export async function changeJob(
  db: Store,
  id: number,
  change: JobChange,
  seenVersion: number,
  now: Date,
): Promise<void> {
  const { moreDrawings = [] } = change;
  if (moreDrawings.length === 0) return changeRow(db, id, change, seenVersion, now);
  await db.transaction(async (transaction) => {
    await changeRow(transaction, id, change, seenVersion, now);
    for (const one of moreDrawings) await changeDrawing(transaction, id, one);
  });
}

async function changeRow(
  db: Store,
  id: number,
  change: JobChange,
  seenVersion: number,
  now: Date,
): Promise<void> {
  const columns: Record<string, unknown> = { version: seenVersion + 1, updated_at: now };
  if (change.name !== undefined) columns['name'] = change.name;
  if (change.drawingName !== undefined) columns['drawing_name'] = change.drawingName;
  if (change.roles !== undefined) columns['are_roles_guessed'] = false;
  if (change.conditionId !== undefined) columns['condition_id'] = change.conditionId;
  if (change.machineId !== undefined) columns['machine_id'] = change.machineId;
  if (change.isPutAway !== undefined) columns['archived_at'] = change.isPutAway ? now : null;
  for (const [field, column] of JSON_COLUMNS) {
    if (change[field] !== undefined) columns[column] = JSON.stringify(change[field]);
  }
  const changed = await db('jobs').where({ id, version: seenVersion }).update(columns);
  if (changed > 0) return;
  const current = await findJobHead(db, id);
  throw new AppError(
    'conflict',
    'Somebody else changed this job meanwhile. Your change was not made; theirs is shown.',
    {
      version: current.version,
    },
  );
}

/**
 * Lays further drawings beside those a job has.
 *
 * @param layoutOf how it lies then, by the numbers they got; as it was when it is left out
 * @returns their numbers
 * @throws AppError `conflict`, `notFound`
 */
export async function addDrawings(
  db: Store,
  jobId: number,
  drawings: readonly Omit<JobDrawing, 'number'>[],
  seenVersion: number,
  now: Date,
  layoutOf?: (numbers: readonly number[]) => Job['layout'],
): Promise<readonly number[]> {
  return db.transaction(async (transaction) => {
    const row: { last_drawing: number } | undefined = await transaction('jobs')
      .where({ id: jobId })
      .first('last_drawing');
    if (!row) throw new AppError('notFound', `there is no job ${jobId}`);
    const numbers = drawings.map((_, index) => row.last_drawing + 1 + index);
    const layout = layoutOf?.(numbers);
    await changeRow(transaction, jobId, { layout }, seenVersion, now);
    for (const [index, drawing] of drawings.entries()) {
      await insertDrawing(transaction, jobId, { ...drawing, number: itemAt(numbers, index) });
    }
    await transaction('jobs')
      .where({ id: jobId })
      .update({ last_drawing: row.last_drawing + drawings.length });
    return numbers;
  });
}

/**
 * Takes a drawing out of a job. When it is the first, the next takes its place.
 *
 * @param layout where the others lie then
 * @throws AppError `conflict`, `notFound`; `badInput` for the only one
 */
export async function removeDrawing(
  db: Store,
  jobId: number,
  number: number,
  layout: Job['layout'],
  seenVersion: number,
  now: Date,
): Promise<void> {
  await db.transaction(async (transaction) => {
    await changeRow(transaction, jobId, { layout }, seenVersion, now);
    const rows = () => transaction('job_drawings').where({ job_id: jobId });
    if (number > 0) {
      if ((await rows().where({ number }).delete()) === 0) throw noDrawing(number);
      return;
    }
    const next: { number: number } | undefined = await rows().orderBy('number').first('number');
    if (!next) throw new AppError('badInput', 'a job has at least one drawing');
    const fields = ['format', 'source', 'roles', 'line_roles', 'are_roles_guessed', 'edits'];
    await transaction.raw(
      `UPDATE jobs JOIN job_drawings AS next ON next.job_id = jobs.id AND next.number = ? SET jobs.drawing_name = next.name, ${fields
        .map((field) => `jobs.${field} = next.${field}`)
        .join(', ')} WHERE jobs.id = ?`,
      [next.number, jobId],
    );
    await rows().where({ number: next.number }).delete();
  });
}
