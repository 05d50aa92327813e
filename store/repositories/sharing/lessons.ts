import { generateKeyPairSync } from 'node:crypto';
import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { lessonsSchema, type Lessons } from '#core/sharing/lessons.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';

/** What another workshop learnt, as it was taken in. */
export interface TakenLessons {
  readonly id: number;
  readonly giver: string;
  readonly name: string;
  readonly lessons: Lessons;
  readonly author: string;
  readonly takenAt: string;
  readonly isPutAway: boolean;
}

const row = z
  .object({
    id: z.number(),
    giver: z.string(),
    name: z.string(),
    lessons: jsonColumn(lessonsSchema),
    author: z.string(),
    taken_at: timeColumn,
    put_away_at: z.date().nullable(),
  })
  .transform(({ taken_at: takenAt, put_away_at: putAwayAt, ...rest }) => ({
    ...rest,
    takenAt,
    isPutAway: putAwayAt !== null,
  }));

export async function listLessons(db: Store): Promise<readonly TakenLessons[]> {
  return z.array(row).parse(await db('lessons').orderBy('id'));
}

type NewLessons = Pick<TakenLessons, 'giver' | 'name' | 'lessons' | 'author'>;

/** Takes in what a workshop gave; what it had given before makes room. */
export async function takeLessonsIn(db: Store, taken: NewLessons, now: Date): Promise<void> {
  const values = { ...taken, lessons: JSON.stringify(taken.lessons), taken_at: now, put_away_at: null };
  await db('lessons').insert(values).onConflict('giver').merge();
}

/** Believes it no more, or again. @throws AppError `notFound` */
export async function putLessonsAway(db: Store, id: number, isPutAway: boolean, now: Date): Promise<void> {
  const changed = await db('lessons')
    .where({ id })
    .update({ put_away_at: isPutAway ? now : null });
  if (changed === 0) throw new AppError('notFound', `there are no lessons ${id}`);
}

/** The key that this workshop signs with, made where there is none. PKCS 8, PEM. */
export async function signingKey(db: Store): Promise<string> {
  const find = async () =>
    (await db('signing_keys').where({ id: 1 }).first<{ private_key: string } | undefined>())?.private_key;
  const known = await find();
  if (known) return known;
  const { privateKey } = generateKeyPairSync('ed25519');
  const made = privateKey.export({ type: 'pkcs8', format: 'pem' }) as string;
  // Two who ask at once get the same one.
  await db('signing_keys').insert({ id: 1, private_key: made }).onConflict('id').ignore();
  return (await find()) ?? made;
}
