import { AppError } from '#core/errors/appError.ts';
import type { JobDrawing } from '#core/job/job.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { claimPictures } from '#store/repositories/jobs/pictures.ts';

type ChangeableDrawing = Pick<JobDrawing, 'name' | 'roles' | 'lineRoles' | 'edits'>;
/** A change of one further drawing; what is not named stays. */
export type DrawingChange = Pick<JobDrawing, 'number'> & {
  readonly [Field in keyof ChangeableDrawing]?: ChangeableDrawing[Field] | undefined;
};

/** A drawing is written in parts of so many characters: writing one of many megabytes at once would hold the server up. */
export const PART_CHARACTERS = 1_500_000;

/** Writes the text of a drawing into a row that has none yet. */
export async function appendSource(
  db: Store,
  table: 'jobs' | 'job_drawings',
  row: Readonly<Record<string, number>>,
  source: string,
): Promise<void> {
  for (const part of listParts(source)) {
    await db(table)
      .where(row)
      .update({ source: db.raw('CONCAT(source, CONVERT(? USING utf8mb4))', [Buffer.from(part)]) });
    // Whoever else waits for the server has a turn.
    await new Promise((resolve) => setImmediate(resolve));
  }
}

/** Keeps a further drawing of a job. */
export async function insertDrawing(db: Store, jobId: number, drawing: JobDrawing): Promise<void> {
  const row = { job_id: jobId, number: drawing.number };
  await claimPictures(db, drawing.source);
  await db('job_drawings').insert({
    ...row,
    name: drawing.name,
    format: drawing.format,
    source: '',
    roles: JSON.stringify(drawing.roles),
    line_roles: JSON.stringify(drawing.lineRoles),
    are_roles_guessed: drawing.areRolesGuessed,
    edits: JSON.stringify(drawing.edits),
  });
  await appendSource(db, 'job_drawings', row, drawing.source);
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

/** Changes one further drawing of a job. @throws AppError `notFound` */
export async function changeDrawing(db: Store, jobId: number, change: DrawingChange): Promise<void> {
  const { number, name, roles, lineRoles, edits } = change;
  const columns = {
    ...(name === undefined ? {} : { name }),
    ...(roles === undefined ? {} : { roles: JSON.stringify(roles), are_roles_guessed: false }),
    ...(lineRoles === undefined ? {} : { line_roles: JSON.stringify(lineRoles) }),
    ...(edits === undefined ? {} : { edits: JSON.stringify(edits) }),
  };
  if (Object.keys(columns).length === 0) return;
  const changed = await db('job_drawings').where({ job_id: jobId, number }).update(columns);
  if (changed === 0) throw noDrawing(number);
}

/** What is said where a job has no such drawing. */
export function noDrawing(number: number): AppError {
  return new AppError('notFound', `this job has no drawing ${number}`);
}
