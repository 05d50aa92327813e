import { sendRequest, type AskedRequest } from '#web/islands/shared/sendRequest.ts';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** A change that was asked for without a network, as it is kept on this device until it can be sent. */
export interface KeptWish extends AskedRequest {
  /** In the order in which they were asked. */
  readonly id: number;
  /** Sent again after a lost answer, it is done once. */
  readonly key: string;
  /** ISO 8601. */
  readonly at: string;
  /** Why it was refused when it was sent, or `null` while it waits. */
  readonly refusal: string | null;
}

interface Shape extends DBSchema {
  readonly wishes: { readonly key: number; readonly value: KeptWish };
}

/** Changes that make sense later: what was seen and done at the machine. Each says all it needs by itself. */
const LATER: readonly (readonly [string, RegExp, string])[] = [
  ['POST', /^\/api\/dial-ins\/\d+\/grades$/, 'a grade'],
  ['PATCH', /^\/api\/dial-ins\/\d+\/grades\/last$/, 'flaws'],
  ['POST', /^\/api\/stations\/\d+\/test-cuts$/, 'a grade'],
  ['PUT', /^\/api\/runs\/\d+\/note$/, 'a note'],
  ['POST', /^\/api\/runs\/\d+\/grades$/, 'a grade'],
  ['POST', /^\/api\/timers\/\d+\/clear$/, 'a wait'],
  ['POST', /^\/api\/faults\/\d+\/outcome$/, 'a fault'],
];

/**
 * What a change is called when it is kept for later, or `null` for one that is not.
 *
 * @example nameLater('POST', '/api/dial-ins/3/grades') // 'a grade'
 */
export function nameLater(method: string, path: string): string | null {
  const { pathname } = new URL(path, 'http://here');
  return LATER.find(([how, where]) => how === method && where.test(pathname))?.[2] ?? null;
}

/** What belongs together: after one that was refused, the others of the same thing wait for a person. */
export function threadOf(path: string): string {
  return path.split('/').slice(0, 4).join('/');
}

/**
 * Sends what waits, in order. One that cannot be sent leaves all others waiting; one that is refused says why, and holds
 * back only what belongs to the same thing.
 *
 * @param send `null`: no network; else why it was refused, or empty
 * @returns how many were done
 */
export async function sendInOrder(
  wishes: readonly KeptWish[],
  send: (wish: KeptWish) => Promise<string | null>,
  settle: (wish: KeptWish, refusal: string) => Promise<void>,
): Promise<number> {
  const held = new Set(wishes.filter(({ refusal }) => refusal !== null).map(({ path }) => threadOf(path)));
  let done = 0;
  for (const wish of wishes) {
    if (held.has(threadOf(wish.path))) continue;
    const refusal = await send(wish);
    if (refusal === null) break;
    await settle(wish, refusal);
    if (refusal === '') done += 1;
    else held.add(threadOf(wish.path));
  }
  return done;
}

let opened: Promise<IDBPDatabase<Shape>> | null = null;

function open(): Promise<IDBPDatabase<Shape>> {
  opened ??= openDB<Shape>('pale-feather', 1, {
    upgrade: (db) => void db.createObjectStore('wishes', { keyPath: 'id', autoIncrement: true }),
  });
  return opened;
}

/** Tells every page of this browser that something was kept or sent. */
const news = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('feather-outbox');
const here = new EventTarget();

function tell(): void {
  here.dispatchEvent(new Event('news'));
  news?.postMessage('news');
}

/** Calls a function whenever something was kept or sent. @returns what ends it */
export function onOutbox(listener: () => void): () => void {
  here.addEventListener('news', listener);
  news?.addEventListener('message', listener);
  return () => {
    here.removeEventListener('news', listener);
    news?.removeEventListener('message', listener);
  };
}

export async function listWishes(): Promise<readonly KeptWish[]> {
  return (await open()).getAll('wishes');
}

/** Keeps a change on this device. @throws where the browser keeps nothing, as in a private window */
export async function keepWish(wish: Pick<KeptWish, keyof AskedRequest>): Promise<void> {
  const kept = { ...wish, at: new Date().toISOString(), refusal: null };
  await (await open()).add('wishes', kept as KeptWish);
  tell();
}

export async function dropWish(id: number): Promise<void> {
  await (await open()).delete('wishes', id);
  tell();
}

/** Has a refused one tried again, with what waited behind it. */
export async function retryWish(wish: KeptWish): Promise<void> {
  await (await open()).put('wishes', { ...wish, refusal: null });
  tell();
}

/** Sends what waits on this device, one page at a time for all of them. @returns how many were done */
export async function sendWishes(): Promise<number> {
  const act = async (lock: Lock | null) => (lock ? sendInOrder(await listWishes(), sendWish, settleWish) : 0);
  return navigator.locks.request('feather-outbox', { ifAvailable: true }, act);
}

async function settleWish(wish: KeptWish, refusal: string): Promise<void> {
  const db = await open();
  if (refusal === '') await db.delete('wishes', wish.id);
  else await db.put('wishes', { ...wish, refusal });
  tell();
}

async function sendWish(wish: KeptWish): Promise<string | null> {
  try {
    const reply = await sendRequest(wish);
    if (reply.ok) return '';
    // The store is away, or nobody is signed in: it waits.
    if (reply.status === 503 || reply.status === 401) return null;
    const { error } = (await reply.json().catch(() => ({}))) as { error?: { message?: string } };
    return error?.message ?? `It was answered with status ${reply.status}.`;
  } catch {
    return null;
  }
}
