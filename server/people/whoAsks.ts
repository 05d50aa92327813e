import { roleByPin, type Role } from '#core/people/roles.ts';
import { hashKey, makeKey } from '#server/people/secrets.ts';
import type { Store } from '#store/connection/connectStore.ts';
import {
  endSession,
  findSession,
  rotateSession,
  touchSession,
  type Session,
} from '#store/repositories/people/sessions.ts';
import { findToken, markTokenUsed } from '#store/repositories/people/tokens.ts';

/** Who asks for something, and how that is known. */
export interface Who {
  readonly name: string;
  readonly role: Role;
  readonly by: 'nobody' | 'session' | 'pin' | 'token' | 'demo';
  readonly operatorId: number | null;
  readonly sessionId: number | null;
  readonly tokenId?: number;
}

export const NOBODY: Who = { name: '', role: 'nobody', by: 'nobody', operatorId: null, sessionId: null };

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
/** How long a session lasts while nobody comes back, and in all. Hands that changed by PIN go sooner. */
const QUIET_MS = { password: 12 * HOUR_MS, pin: 2 * HOUR_MS } as const;
const LIFE_MS = 14 * 24 * HOUR_MS;
/** A key that is older is changed for another at the next request. */
const KEY_MS = 24 * HOUR_MS;
/** Being there is written down so seldom. */
const TOUCH_MS = 5 * MINUTE_MS;

/** What a request shows. */
export interface Shown {
  readonly sessionKey: string | undefined;
  /** Of the header Authorization. */
  readonly authorization: string | null;
}

/**
 * Who shows a session or a token.
 *
 * @returns with a session whose key was too old, the key that the browser shows from now on
 */
export async function whoShows(
  store: Store,
  { sessionKey, authorization }: Shown,
  now: Date,
): Promise<{ readonly who: Who; readonly freshKey?: string }> {
  const bearer = /^Bearer (\S+)$/i.exec(authorization ?? '')?.[1];
  if (bearer) return { who: await whoHolds(store, bearer, now) };
  if (!sessionKey) return { who: NOBODY };
  const session = await findSession(store, hashKey(sessionKey), now);
  if (!session) return { who: NOBODY };
  if (isOver(session, now)) {
    await endSession(store, session.id);
    return { who: NOBODY };
  }
  const { id, operatorId, name, role, isByPin } = session;
  const reach = isByPin ? roleByPin(role) : role;
  const who: Who = { name, role: reach, by: isByPin ? 'pin' : 'session', operatorId, sessionId: id };
  if (now.getTime() - session.seenAt.getTime() > TOUCH_MS) await unlessFull(touchSession(store, id, now));
  if (now.getTime() - session.rotatedAt.getTime() < KEY_MS) return { who };
  const fresh = makeKey();
  const isRotated = await unlessFull(rotateSession(store, session, fresh.hash, now));
  return isRotated ? { who, freshKey: fresh.key } : { who };
}

/** Whoever only reads may do so while nothing can be written, as on a full disk. */
function unlessFull<Done>(writing: Promise<Done>): Promise<Done | undefined> {
  return writing.catch(() => undefined);
}

function isOver({ isByPin, seenAt, begunAt }: Session, now: Date): boolean {
  const quiet = isByPin ? QUIET_MS.pin : QUIET_MS.password;
  return now.getTime() - seenAt.getTime() > quiet || now.getTime() - begunAt.getTime() > LIFE_MS;
}

async function whoHolds(store: Store, key: string, now: Date): Promise<Who> {
  const token = await findToken(store, hashKey(key));
  if (!token) return NOBODY;
  const usedAt = token.usedAt === null ? 0 : Date.parse(token.usedAt);
  if (now.getTime() - usedAt > TOUCH_MS) await unlessFull(markTokenUsed(store, token.id, now));
  return {
    name: token.madeBy,
    role: token.role,
    by: 'token',
    operatorId: null,
    sessionId: null,
    tokenId: token.id,
  };
}
