import { z } from 'zod';
import { listKeptPictures } from '#core/drawing/keptPicture.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** A picture of drawings, kept by what it holds. */
export interface NewPicture {
  readonly address: string;
  readonly data: Buffer;
  /** The same with few pixels in the colours of a screen: enough for a list and for a sheet. */
  readonly small: Buffer;
  /** The colour profile of its file (ICC), where it has another than a screen's. */
  readonly profile: Buffer | null;
}

/** A picture as it is printed. */
export interface ExactPicture {
  readonly data: Uint8Array;
  readonly profile: Uint8Array | null;
}

const bytes = z.instanceof(Buffer);
const pictureRow = z.object({ address: z.string(), small: bytes });
const partRow = z.object({ address: z.string(), data: bytes });
const profileRow = z.object({ address: z.string(), profile: bytes.nullable() });

/** One row is written in a packet that any MariaDB takes. */
const PART_BYTES = 1_500_000;
/** What no job uses goes after so long: somebody may still be choosing its size. */
const UNUSED_MS = 24 * 60 * 60 * 1000;

/** Keeps a picture; the same one is kept once. */
export async function keepPicture(db: Store, picture: NewPicture, now: Date): Promise<void> {
  const { address, data, small, profile } = picture;
  if (await db('pictures').where({ address }).first('address')) return;
  await db.transaction(async (transaction) => {
    const row = { address, small, profile, added_at: now };
    await transaction('pictures').insert(row).onConflict('address').ignore();
    for (let at = 0, part = 0; at < data.length; at += PART_BYTES, part++) {
      const piece = { address, part, data: data.subarray(at, at + PART_BYTES) };
      await transaction('picture_parts').insert(piece).onConflict(['address', 'part']).ignore();
    }
  });
}

/** Pictures with few pixels, by their addresses. @throws AppError `notFound` */
export async function findSmallPictures(
  db: Store,
  addresses: readonly string[],
): Promise<ReadonlyMap<string, Uint8Array>> {
  const rows = await db('pictures')
    .whereIn('address', [...addresses])
    .select('address', 'small');
  const found = new Map(
    rows.map((row) => pictureRow.parse(row)).map(({ address, small }) => [address, small]),
  );
  requireAll(addresses, found);
  return found;
}

/** Pictures as they were brought, by their addresses. @throws AppError `notFound` */
export async function findPictures(
  db: Store,
  addresses: readonly string[],
): Promise<ReadonlyMap<string, ExactPicture>> {
  const profiles = await db('pictures')
    .whereIn('address', [...addresses])
    .select('address', 'profile');
  const found = new Map<string, ExactPicture>();
  for (const row of profiles) {
    const { address, profile } = profileRow.parse(row);
    const parts = await db('picture_parts').where({ address }).orderBy('part').select('address', 'data');
    found.set(address, { data: Buffer.concat(parts.map((part) => partRow.parse(part).data)), profile });
  }
  requireAll(addresses, found);
  return found;
}

function requireAll(addresses: readonly string[], found: ReadonlyMap<string, unknown>): void {
  if (addresses.every((address) => found.has(address))) return;
  throw new AppError('notFound', 'a picture of this drawing is not kept here');
}

/**
 * The pictures of a drawing stay from now on.
 *
 * @throws AppError `badInput` where it names one that is not kept here
 */
export async function claimPictures(db: Store, source: string): Promise<void> {
  const addresses = listKeptPictures(source);
  if (addresses.length === 0) return;
  const { length } = await db('pictures')
    .whereIn('address', [...addresses])
    .select('address');
  if (length < addresses.length) {
    throw new AppError('badInput', 'a picture of this drawing is not kept here: bring its file again');
  }
  await db('pictures')
    .whereIn('address', [...addresses])
    .where({ is_used: false })
    .update({ is_used: true });
}

/** Lets go what was brought and never used. @returns how many */
export async function forgetPictures(db: Store, now: Date): Promise<number> {
  const last = new Date(now.getTime() - UNUSED_MS);
  return db('pictures').where({ is_used: false }).where('added_at', '<', last).limit(100).delete();
}
