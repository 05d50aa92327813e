import type { Store } from '#store/connection/connectStore.ts';
import { hasOwner } from '#store/repositories/people/accounts.ts';

const owned = new WeakSet<Store>();

/** Whether the workshop has somebody who can sign in as its owner: once it has, it always has. */
export async function isOwned(store: Store): Promise<boolean> {
  if (owned.has(store)) return true;
  if (!(await hasOwner(store))) return false;
  owned.add(store);
  return true;
}
