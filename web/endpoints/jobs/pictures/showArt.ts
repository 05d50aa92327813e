import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import type { Rings } from '#core/geometry/clip.ts';
import type { Job, KeptDrawing } from '#core/job/job.ts';
import { editsBefore } from '#core/job/jobBorder.ts';
import type { Store } from '#store/connection/connectStore.ts';
import type { ShownArt } from '#web/endpoints/jobs/pictures/inlinePictures.ts';
import { screenPicturesOf, smallPicturesOf } from '#web/endpoints/jobs/pictures/jobPictures.ts';
import { runTask } from '#web/workers/pool.ts';

/** What was looked at, by all that it depends on; as much as is not too much to hold, in points. */
const looked = new LRUCache<string, { readonly rings: Rings | null }>({
  maxSize: 2_000_000,
  sizeCalculation: ({ rings }) => (rings ?? []).reduce((sum, ring) => sum + ring.length, 10),
});

/**
 * What the pictures of a job show, where its lines do not tell. Each drawing is looked at once, however often the job is
 * laid out or gets other borders.
 *
 * @throws AppError `badDrawing` where the renderer refuses a file
 */
export async function showArt(db: Store, job: Job, signal?: AbortSignal): Promise<ShownArt> {
  const { moreDrawings = [], ...first } = job;
  const shown = await Promise.all(
    [{ ...first, number: 0 }, ...moreDrawings].map(async (one) => ({
      number: one.number,
      rings: await lookOnce(db, one, signal),
    })),
  );
  return new Map(shown.flatMap(({ number, rings }) => (rings ? [[number, rings] as const] : [])));
}

async function lookOnce(db: Store, drawing: KeptDrawing, signal?: AbortSignal): Promise<Rings | null> {
  if (drawing.format !== 'svg') return null;
  const { format, source, roles, lineRoles, areRolesGuessed } = drawing;
  const plain = { format, source, roles, lineRoles, areRolesGuessed, edits: editsBefore(drawing.edits) };
  const key = createHash('sha256').update(JSON.stringify(plain)).digest('base64');
  const known = looked.get(key);
  if (known) return known.rings;
  const few = { drawing: plain, pictures: await smallPicturesOf(db, plain), isSmall: true };
  const seen = await runTask('show', few, { signal, lane: 'look' });
  const { rings } = seen.isTooCoarse
    ? await runTask(
        'show',
        { drawing: plain, pictures: await screenPicturesOf(db, plain), isSmall: false },
        { signal, lane: 'look' },
      )
    : seen;
  looked.set(key, { rings });
  return rings;
}
