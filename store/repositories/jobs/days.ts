import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { jsonColumn } from '#store/rows/jsonColumn.ts';
import type { DayJob } from '#core/prep/dayPlan.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** A day as it is kept. */
export interface KeptDay {
  readonly day: string;
  /** When work begins, minutes after midnight. */
  readonly beginsAt: number;
  readonly jobs: readonly DayJob[];
  /** In which order steps are taken; empty until it was planned. */
  readonly sequence: readonly number[];
  /** 0 for a day that nobody has planned yet. */
  readonly version: number;
}

const dayRow = z.object({
  day: z.string(),
  // Written by ourselves from parsed values: the shape is checked where it comes in.
  plan: jsonColumn(
    z.custom<Pick<KeptDay, 'beginsAt' | 'jobs' | 'sequence'>>((value) => typeof value === 'object'),
  ),
  version: z.number(),
});

const EIGHT = 8 * 60;

/** A day, empty when nobody planned it. @param day ISO date */
export async function findDay(db: Store, day: string): Promise<KeptDay> {
  const row: unknown = await db('days').where({ day }).first();
  if (!row) return { day, beginsAt: EIGHT, jobs: [], sequence: [], version: 0 };
  const { plan, version } = dayRow.parse(row);
  return { day, ...plan, version };
}

/**
 * Keeps a day.
 *
 * @param seenVersion the version its author saw
 * @throws AppError `conflict` when somebody else planned it meanwhile
 */
export async function keepDay(
  db: Store,
  { day, beginsAt, jobs, sequence }: Omit<KeptDay, 'version'>,
  seenVersion: number,
  now: Date,
): Promise<void> {
  const plan = JSON.stringify({ beginsAt, jobs, sequence });
  const refusal = 'Somebody else planned this day meanwhile. Load it again.';
  if (seenVersion === 0) {
    const inserted = await db('days')
      .insert({ day, plan, version: 1, updated_at: now })
      .onConflict('day')
      .ignore()
      .then(() => db('days').where({ day }).first('plan', 'version'));
    if (inserted && (inserted as { plan: string }).plan === plan) return;
    throw new AppError('conflict', refusal);
  }
  const changed = await db('days')
    .where({ day, version: seenVersion })
    .update({ plan, version: seenVersion + 1, updated_at: now });
  if (changed === 0) throw new AppError('conflict', refusal);
}
