import { listKeptPictures } from '#core/drawing/keptPicture.ts';
import type { Job, KeptDrawing } from '#core/job/job.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findPictures, findSmallPictures } from '#store/repositories/jobs/pictures.ts';
import {
  inlinePictures,
  onScreen,
  type ExactPictures,
  type Pictures,
} from '#web/endpoints/jobs/pictures/inlinePictures.ts';
import { keepLongPictures } from '#web/endpoints/jobs/pictures/keepPictures.ts';

type Files = Pick<KeptDrawing, 'source'> & Pick<Job, 'moreDrawings'>;

/** The kept pictures that the drawings of a job name. */
export function picturesNamedIn({ source, moreDrawings = [] }: Files): readonly string[] {
  const all = [source, ...moreDrawings.map((one) => one.source)].flatMap(listKeptPictures);
  return [...new Set(all)];
}

/** The pictures of drawings with few pixels, enough for a list. */
export function smallPicturesOf(db: Store, files: Files): Promise<Pictures> {
  return findSmallPictures(db, picturesNamedIn(files));
}

/** The pictures of drawings as they were brought, for print. */
export function exactPicturesOf(db: Store, files: Files): Promise<ExactPictures> {
  return findPictures(db, picturesNamedIn(files));
}

/** The pictures of drawings in the colours of a screen, for a renderer that knows no others. */
export async function screenPicturesOf(db: Store, files: Files): Promise<Pictures> {
  return onScreen(await exactPicturesOf(db, files));
}

/** A file with its pictures in it, as it was brought. */
export async function wholeFile(db: Store, source: string): Promise<string> {
  const exact = await findPictures(db, listKeptPictures(source));
  return inlinePictures(source, new Map([...exact].map(([address, { data }]) => [address, data])));
}

/** A job whose files hold their pictures, to be taken elsewhere. */
export function withWholeFiles<Given extends Files>(db: Store, job: Given): Promise<Given> {
  return mapFiles(job, (source) => wholeFile(db, source));
}

/** A job whose files name their long pictures, which are kept here. */
export function withKeptPictures<Given extends Files>(db: Store, job: Given): Promise<Given> {
  return mapFiles(job, (source) => keepLongPictures(db, source));
}

async function mapFiles<Given extends Files>(
  job: Given,
  change: (source: string) => Promise<string>,
): Promise<Given> {
  const more = job.moreDrawings?.map(async (one) => ({ ...one, source: await change(one.source) }));
  return {
    ...job,
    source: await change(job.source),
    ...(more ? { moreDrawings: await Promise.all(more) } : {}),
  };
}
