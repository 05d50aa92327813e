import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { WAIT_KINDS, type WaitKind, type WaitsOfMaterial } from '#core/prep/waits.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';

/** A wait under way. */
export interface Timer {
  readonly id: number;
  readonly kind: WaitKind;
  readonly words: string;
  readonly jobId: number | null;
  readonly materialId: number | null;
  readonly startedAt: string;
  readonly endsAt: string;
  readonly author: string;
}

const timerRow = z.object({
  id: z.number(),
  kind: z.enum(WAIT_KINDS),
  words: z.string(),
  job_id: z.number().nullable(),
  material_id: z.number().nullable(),
  started_at: timeColumn,
  ends_at: timeColumn,
  author: z.string(),
});

const routeRow = z.object({
  condition_id: z.number(),
  kinds: jsonColumn(z.array(z.enum(WAIT_KINDS)).readonly()),
});

/** Lengths that were said for one material. */
export async function findWaits(db: Store, materialId: number): Promise<WaitsOfMaterial> {
  const rows: { kind: WaitKind; minutes: number }[] = await db('wait_lengths').where({
    material_id: materialId,
  });
  return Object.fromEntries(rows.map(({ kind, minutes }) => [kind, minutes]));
}

/** Says how long a wait is for a material; `null` leaves it to the usual again. */
export async function setWait(
  db: Store,
  materialId: number,
  kind: WaitKind,
  minutes: number | null,
  author: string,
  now: Date,
): Promise<void> {
  if (minutes === null) {
    await db('wait_lengths').where({ material_id: materialId, kind }).delete();
    return;
  }
  await db('wait_lengths')
    .insert({ material_id: materialId, kind, minutes, author, at: now })
    .onConflict(['material_id', 'kind'])
    .merge();
}

/** What a state of a material waits for, as somebody said, or `null`. */
export async function findWaitRoutes(
  db: Store,
  conditionIds: readonly number[],
): Promise<ReadonlyMap<number, readonly WaitKind[]>> {
  const rows: unknown[] = await db('wait_routes').whereIn('condition_id', [...conditionIds]);
  return new Map(
    rows.map((row) => {
      const { condition_id, kinds } = routeRow.parse(row);
      return [condition_id, kinds];
    }),
  );
}

/** Says what a state waits for, in order; `null` leaves it to the usual again. */
export async function setWaitRoute(
  db: Store,
  conditionId: number,
  kinds: readonly WaitKind[] | null,
  author: string,
  now: Date,
): Promise<void> {
  if (kinds === null) {
    await db('wait_routes').where({ condition_id: conditionId }).delete();
    return;
  }
  await db('wait_routes')
    .insert({ condition_id: conditionId, kinds: JSON.stringify(kinds), author, at: now })
    .onConflict('condition_id')
    .merge();
}

/** Timers that nobody has cleared, those that end first before the others. */
export async function listTimers(db: Store): Promise<readonly Timer[]> {
  const rows: unknown[] = await db('timers').whereNull('cleared_at').orderBy('ends_at').limit(30);
  return rows.map((row) => {
    const { job_id, material_id, started_at, ends_at, ...same } = timerRow.parse(row);
    return { ...same, jobId: job_id, materialId: material_id, startedAt: started_at, endsAt: ends_at };
  });
}

export async function startTimer(
  db: Store,
  timer: Pick<Timer, 'kind' | 'words' | 'jobId' | 'materialId' | 'author'> & {
    readonly minutes: number;
  },
  now: Date,
): Promise<number> {
  const [id] = await db('timers').insert({
    kind: timer.kind,
    words: timer.words.slice(0, 160),
    job_id: timer.jobId,
    material_id: timer.materialId,
    author: timer.author,
    started_at: now,
    ends_at: new Date(now.getTime() + timer.minutes * 60_000),
  });
  return id as number;
}

/** Clears a timer: it is over, or was not needed. @throws AppError `notFound` when it is not there or was cleared */
export async function clearTimer(db: Store, id: number, now: Date): Promise<void> {
  const changed = await db('timers').where({ id, cleared_at: null }).update({ cleared_at: now });
  if (changed === 0) throw new AppError('notFound', `timer ${id} is not running`);
}
