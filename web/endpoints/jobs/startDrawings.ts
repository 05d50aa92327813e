import { AppError } from '#core/errors/appError.ts';
import type { JobDrawing } from '#core/job/job.ts';
import type { OwnBorder } from '#core/job/jobBorder.ts';
import { roleFactsOf } from '#core/job/roleFactsOf.ts';
import type { Shelf } from '#core/sheet/offerSheets.ts';
import type { StartedJob } from '#core/job/startJob.ts';
import type { Stack } from '#core/stack/layer.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listRoleRules } from '#store/repositories/jobs/roleRules.ts';
import { outlineDrawing } from '#web/endpoints/jobs/words/outlineDrawing.ts';
import { screenPicturesOf } from '#web/endpoints/jobs/pictures/jobPictures.ts';
import { keepLongPictures } from '#web/endpoints/jobs/pictures/keepPictures.ts';
import { runTask } from '#web/workers/pool.ts';
import type { NewDrawing } from '#web/schemas/job.ts';

/** Where drawings begin: which sheet on which machine. */
export interface StartingPlace {
  readonly stack: Stack;
  readonly machine: Machine;
  readonly signal: AbortSignal;
  /** What its sheet is chosen from. */
  readonly shelf: Shelf;
  /** For each piece, in place of its outline. */
  readonly border?: OwnBorder | undefined;
}

/** Opens files as they begin at a bench. */
export async function starter(
  store: Store,
  { stack, machine, signal, shelf, border }: StartingPlace,
): Promise<(file: NewDrawing) => Promise<StartedJob>> {
  const facts = roleFactsOf(stack, machine);
  const { bedWidthMm, bedLengthMm, marginMm } = machine;
  const bed = { bedWidthMm, bedLengthMm, marginMm };
  const rules = await listRoleRules(store);
  return async ({ name, format, source: given }) => {
    const source =
      format === 'svg' ? await outlineDrawing(store, await keepLongPictures(store, given), signal) : given;
    const file = { name, format, source };
    const order = { file, bed, facts, rules, shelf, border: border ?? null };
    const started =
      (await runTask('startJob', { ...order, pictures: null }, { signal })) ??
      (await runTask('startJob', { ...order, pictures: await screenPicturesOf(store, file) }, { signal }));
    if (!started) throw new AppError('badDrawing', 'the pictures of this drawing cannot be read');
    return { ...started, source };
  };
}

export function drawingOf(started: StartedJob, number: number): JobDrawing {
  const { name, format, source, roles, lineRoles, areRolesGuessed, edits } = started;
  return { number, name, format, source, roles, lineRoles, areRolesGuessed, edits };
}
