import { AppError } from '#core/errors/appError.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** A photo of a run, as it is listed. */
export interface RunPhoto {
  readonly id: number;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** So many photos a run keeps. */
const MOST = 12;

/** Keeps a photo that was encoded anew. @throws AppError `conflict` when the run has as many as it keeps */
export async function addRunPhoto(
  db: Store,
  runId: number,
  photo: { readonly image: Buffer; readonly widthPx: number; readonly heightPx: number },
  author: string,
  now: Date,
): Promise<number> {
  const { count } = (await db('run_photos').where({ run_id: runId }).count({ count: '*' }).first()) as {
    count: number;
  };
  if (Number(count) >= MOST) throw new AppError('conflict', `a run keeps at most ${MOST} photos`);
  const [id] = await db('run_photos').insert({
    run_id: runId,
    image: photo.image,
    width_px: photo.widthPx,
    height_px: photo.heightPx,
    author,
    at: now,
  });
  return id as number;
}

export async function listRunPhotos(db: Store, runId: number): Promise<readonly RunPhoto[]> {
  const rows: { id: number; width_px: number; height_px: number }[] = await db('run_photos')
    .where({ run_id: runId })
    .orderBy('id')
    .select('id', 'width_px', 'height_px');
  return rows.map(({ id, width_px, height_px }) => ({ id, widthPx: width_px, heightPx: height_px }));
}

/** @throws AppError `notFound` */
export async function findRunPhoto(db: Store, runId: number, id: number): Promise<Buffer> {
  const row: { image: Buffer } | undefined = await db('run_photos')
    .where({ id, run_id: runId })
    .first('image');
  if (!row) throw new AppError('notFound', `there is no photo ${id} of this run`);
  return row.image;
}
