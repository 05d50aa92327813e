import type { Who } from '#server/people/whoAsks.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { isSessionThere } from '#store/repositories/people/sessions.ts';
import { isTokenThere } from '#store/repositories/people/tokens.ts';

/** Whether somebody who was let in would still be: a stream that was opened ends when its session or token does. */
export async function isStillIn(store: Store, { by, sessionId, tokenId }: Who): Promise<boolean> {
  if (by === 'demo') return true;
  if (tokenId !== undefined) return isTokenThere(store, tokenId);
  return sessionId !== null && isSessionThere(store, sessionId);
}
