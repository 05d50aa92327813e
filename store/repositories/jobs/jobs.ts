import { itemAt } from '#core/collections/itemAt.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Job, JobHead } from '#core/job/job.ts';
import type { Run } from '#core/run/run.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { JOB_HEAD_COLUMNS, readJobHeadRow, readJobRow } from '#store/rows/jobRows.ts';

export interface NewJob extends Omit<Job, 'id' | 'version' | 'updatedAt'> {
  /** The search that it cuts test pieces for; such a job stands in no list. */
  readonly dialInId?: number;
  /** What of it is judged where it is cut for that alone; it stands in no list either. */
  readonly judged?: Run['judged'];
}
type Changeable = Pick<
  Job,
  'name' | 'roles' | 'lineRoles' | 'edits' | 'sheet' | 'layout' | 'print' | 'passes'
>;
/** What is not named, or named undefined, stays. */
export type JobChange = { readonly [Field in keyof Changeable]?: Changeable[Field] | undefined };

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
  readonly updatedAt: string;
}

/** Jobs, the last changed first. */
export async function listJobs(db: Store): Promise<readonly JobSummary[]> {
  const rows: { id: number; name: string; condition_id: number; machine_id: number; updated_at: Date }[] =
    await db('jobs')
      .whereNull('dial_in_id')
      .whereNull('judged')
      .select('id', 'name', 'condition_id', 'machine_id', 'updated_at')
      .orderBy([{ column: 'updated_at', order: 'desc' }, 'id']);
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    conditionId: row.condition_id,
    machineId: row.machine_id,
    updatedAt: row.updated_at.toISOString(),
  }));
}

/** @throws AppError `notFound` */
export async function findJob(db: Store, id: number): Promise<Job> {
  const row = await db('jobs').where({ id }).first();
  if (!row) throw new AppError('notFound', `there is no job ${id}`);
  return readJobRow(row);
}

/** A job without reading its drawing. @throws AppError `notFound` */
export async function findJobHead(db: Store, id: number): Promise<JobHead> {
  const row = await db('jobs').where({ id }).first(JOB_HEAD_COLUMNS);
  if (!row) throw new AppError('notFound', `there is no job ${id}`);
  return readJobHeadRow(row);
}

/** A drawing is written in parts of so many characters: writing one of many megabytes at once would hold the server up. */
const PART_CHARACTERS = 1_500_000;

export async function addJob(db: Store, job: NewJob, now: Date): Promise<number> {
  if (job.source.length <= PART_CHARACTERS) return insertJob(db, job, job.source, now);
  return db.transaction(async (transaction) => {
    const parts = listParts(job.source);
    const id = await insertJob(transaction, job, itemAt(parts, 0), now);
    for (const part of parts.slice(1)) {
      await transaction('jobs')
        .where({ id })
        .update({ source: transaction.raw('CONCAT(source, CONVERT(? USING utf8mb4))', [Buffer.from(part)]) });
      // Whoever else waits for the server has a turn.
      await new Promise((resolve) => setImmediate(resolve));
    }
    return id;
  });
}

/** A text in parts, none of which ends within a pair of surrogates. */
function listParts(text: string): readonly string[] {
  const parts: string[] = [];
  for (let at = 0; at < text.length;) {
    let end = Math.min(text.length, at + PART_CHARACTERS);
    const last = text.charCodeAt(end - 1);
    if (end < text.length && last >= 0xd800 && last < 0xdc00) end -= 1;
    parts.push(text.slice(at, end));
    at = end;
  }
  return parts;
}

async function insertJob(db: Store, job: NewJob, source: string, now: Date): Promise<number> {
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
    version: 1,
    updated_at: now,
  });
  return id as number;
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
  const columns: Record<string, unknown> = { version: seenVersion + 1, updated_at: now };
  if (change.name !== undefined) columns['name'] = change.name;
  if (change.roles !== undefined) columns['are_roles_guessed'] = false;
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
