import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { flagColumn } from '#store/rows/jsonColumn.ts';

/** A font of the workshop's own. */
export interface OwnFont {
  readonly id: number;
  readonly name: string;
  readonly family: string;
  readonly isBold: boolean;
}

const fontRow = z.object({ id: z.number(), name: z.string(), family: z.string(), is_bold: flagColumn });
const dataRow = z.object({ data: z.instanceof(Buffer) });

/** The workshop's fonts by name. */
export async function listFonts(db: Store): Promise<readonly OwnFont[]> {
  const rows: unknown[] = await db('fonts')
    .select('id', 'name', 'family', 'is_bold')
    .orderBy('name')
    .orderBy('id');
  return rows.map((row) => {
    const { is_bold: isBold, ...font } = fontRow.parse(row);
    return { ...font, isBold };
  });
}

/** The file of a font. @throws AppError `notFound` */
export async function findFontFile(db: Store, id: number): Promise<Buffer> {
  const row: unknown = await db('fonts').select('data').where({ id }).first();
  if (row === undefined) throw new AppError('notFound', `there is no font ${id}`);
  return dataRow.parse(row).data;
}

/** Keeps a font; one of the same name is replaced. @returns its id */
export async function keepFont(
  db: Store,
  font: Omit<OwnFont, 'id'> & { readonly data: Buffer },
  author: string,
  now: Date,
): Promise<number> {
  const { name, family, isBold, data } = font;
  return db.transaction(async (transaction) => {
    await transaction('fonts').where({ name }).delete();
    const [id] = await transaction('fonts').insert({
      name,
      family,
      is_bold: isBold,
      data,
      author,
      added_at: now,
    });
    return id as number;
  });
}

/** @throws AppError `notFound` */
export async function dropFont(db: Store, id: number): Promise<void> {
  if ((await db('fonts').where({ id }).delete()) > 0) return;
  throw new AppError('notFound', `there is no font ${id}`);
}
