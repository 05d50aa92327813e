import { promisify } from 'node:util';
import { deflate, inflate } from 'node:zlib';
import { AppError } from '#core/errors/appError.ts';
import { isStoreTrouble } from '#store/connection/storeTrouble.ts';
import { isDuplicate } from '#store/repositories/workshop/insertUnique.ts';
import type { Store } from '#store/connection/connectStore.ts';

const pack = promisify(deflate);
const unpack = promisify(inflate);

/** What asks for a change. The same key with the same fingerprint is the same wish. */
export interface KeyedRequest {
  /** 1 to 128 printable ASCII characters, chosen by who asks; `isOwn` when the server had to choose it. */
  readonly key: string;
  readonly isOwn: boolean;
  /** Of method, address and body: 64 hexadecimal digits. */
  readonly fingerprint: string;
}

/** Keys are remembered for so long, hours. */
const REMEMBERED_HOURS = 48;
/** So often, and after such pauses, it is asked whether a writing whose answer was lost was kept. */
const ASK_AGAIN_MS = [0, 150, 400, 900];
/** Nobody waits longer for that answer, ms. */
const ASK_FOR_MS = 1_800;

/**
 * Changes the book once for a key: what is changed, the key and the answer are one transaction. Who asks again, also
 * after a restart, gets the same answer. Inside, every read sees what was written last.
 *
 * @returns what `act` returns, or what it returned when the key came first
 * @throws AppError `keyReused` for a key that stood for another wish; `outcomeUnknown` when the database went away at
 *   the moment of writing and cannot be asked; whatever `act` throws: then nothing was changed
 */
export async function changeOnce<Reply>(
  db: Store,
  request: KeyedRequest,
  now: Date,
  act: (transaction: Store) => Promise<Reply>,
): Promise<Reply> {
  let isWritten = false;
  const change = async (transaction: Store) => {
    isWritten = false;
    await insertKey(transaction, request, now);
    const reply = await act(transaction);
    await settleKey(transaction, request, reply);
    isWritten = true;
    return reply;
  };
  try {
    return await db.transaction(change, { isolationLevel: 'read committed' });
  } catch (error) {
    if (error instanceof KeyTaken) return recall<Reply>(await requireReply(db, request));
    if (isWritten && isStoreTrouble(error)) return learnOutcome(db, request, error);
    throw error;
  }
}

/**
 * Does something outside the book once for a key: a machine moves, a sheet is printed. The key is written down first,
 * so that nothing is done twice when the answer is lost.
 *
 * @throws AppError `outcomeUnknown` when the server stopped in the midst of it; whatever `act` throws
 */
export async function actOnce<Reply>(
  db: Store,
  request: KeyedRequest,
  now: Date,
  act: () => Promise<Reply>,
): Promise<Reply> {
  try {
    await insertKey(db, request, now);
  } catch (error) {
    if (error instanceof KeyTaken) return recall<Reply>(await requireReply(db, request));
    throw error;
  }
  try {
    const reply = await act();
    // What was done is done, also when that cannot be written down.
    await settleKey(db, request, reply).catch(() => undefined);
    return reply;
  } catch (error) {
    await db('request_keys')
      .where({ request_key: request.key })
      .delete()
      .catch(() => undefined);
    throw error;
  }
}

/** The answer that a key got, or `null` when it is new. @throws AppError `keyReused`, `outcomeUnknown` */
export async function findReply<Reply>(db: Store, request: KeyedRequest): Promise<{ reply: Reply } | null> {
  if (request.isOwn) return null;
  const row = await readKey(db, request);
  return row && { reply: await recall<Reply>(row) };
}

/** Forgets keys that nobody will ask with again. @returns how many */
export async function forgetKeys(db: Store, now: Date): Promise<number> {
  const last = new Date(now.getTime() - REMEMBERED_HOURS * 3_600_000);
  return db('request_keys').where('at', '<', last).limit(5_000).delete();
}

/** Somebody came with the same key before. */
class KeyTaken extends Error {}

interface KeyRow {
  readonly fingerprint: string;
  readonly reply: Buffer | null;
  readonly is_done: number;
}

async function insertKey(db: Store, request: KeyedRequest, now: Date): Promise<void> {
  const { key, fingerprint } = request;
  try {
    await db('request_keys').insert({ request_key: key, fingerprint, reply: null, is_done: false, at: now });
  } catch (error) {
    if (isDuplicate(error)) throw new KeyTaken();
    throw error;
  }
}

/** Who named no key cannot ask again: the row alone says that it was done. */
async function settleKey(db: Store, { key, isOwn }: KeyedRequest, reply: unknown): Promise<void> {
  const packed = isOwn ? null : await pack(JSON.stringify(reply ?? null));
  await db('request_keys').where({ request_key: key }).update({ reply: packed, is_done: true });
}

async function readKey(db: Store, { key, fingerprint }: KeyedRequest): Promise<KeyRow | null> {
  const row: KeyRow | undefined = await db('request_keys').where({ request_key: key }).first();
  if (!row) return null;
  if (row.fingerprint === fingerprint) return row;
  throw new AppError(
    'keyReused',
    'This request key stood for another request. Nothing was changed; use a new key for a new wish.',
  );
}

async function requireReply(db: Store, request: KeyedRequest): Promise<KeyRow> {
  const row = await readKey(db, request);
  if (row) return row;
  // It was there a moment ago: the first one failed, and took its key back.
  throw new AppError('conflict', 'The same request failed a moment ago. Nothing was changed; ask once more.');
}

async function recall<Reply>({ reply, is_done }: KeyRow): Promise<Reply> {
  if (reply) return JSON.parse((await unpack(reply)).toString('utf8')) as Reply;
  throw new AppError(
    'outcomeUnknown',
    is_done
      ? 'This was kept before; its answer is not known any more. Load the page anew.'
      : 'This was asked before, and no answer is known: it is under way, or the server stopped in the midst of it. Look what was done before you ask anew.',
  );
}

/**
 * The database went away at the moment of writing. The lock of the row waits for what is still being written. One that
 * froze has been waited for already, and is not asked.
 */
async function learnOutcome<Reply>(db: Store, request: KeyedRequest, error: Error): Promise<Reply> {
  const isFrozen = 'code' in error && error.code === 'ETIMEDOUT';
  const row = isFrozen ? 'unknown' : await Promise.race([askForKey(db, request), giveUpAfter(ASK_FOR_MS)]);
  if (row === 'unknown') {
    throw new AppError(
      'outcomeUnknown',
      'The database went away at the moment of writing. Ask again with the same request key, or press the same button again: it is done once only.',
    );
  }
  if (row?.reply) return recall<Reply>(row);
  if (row)
    throw new AppError('outcomeUnknown', 'This was kept, but its answer was lost. Load the page anew.');
  throw new AppError(
    'storeUnavailable',
    'The database went away for a moment. Nothing was changed; try again.',
  );
}

/** The row of a key as it stands when nothing is being written any more; `null` when there is none. */
async function askForKey(db: Store, { key }: KeyedRequest): Promise<KeyRow | null | 'unknown'> {
  for (const milliseconds of ASK_AGAIN_MS) {
    await new Promise((resolve) => setTimeout(resolve, milliseconds));
    try {
      return (await db('request_keys').where({ request_key: key }).forUpdate().first<KeyRow>()) ?? null;
    } catch {
      // It is away still.
    }
  }
  return 'unknown';
}

const giveUpAfter = (milliseconds: number) =>
  new Promise<'unknown'>((resolve) => setTimeout(() => resolve('unknown'), milliseconds).unref());
