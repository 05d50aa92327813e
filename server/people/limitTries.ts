import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible';
import { AppError } from '#core/errors/appError.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** Wrong tries at one name before it waits; and from one address, whatever the names. Common practice, no source. */
const OF_NAME = { points: 8, duration: 15 * 60, keyPrefix: 'name' };
const OF_ADDRESS = { points: 60, duration: 15 * 60, keyPrefix: 'address' };

const limiters = new WeakMap<Store, readonly [RateLimiterMySQL, RateLimiterMySQL]>();

function limitersOf(store: Store): readonly [RateLimiterMySQL, RateLimiterMySQL] {
  const known = limiters.get(store);
  if (known) return known;
  const { database } = store.client.config.connection as { readonly database: string };
  const make = (limit: typeof OF_NAME) =>
    new RateLimiterMySQL({
      storeClient: store,
      storeType: 'knex',
      dbName: database,
      tableName: 'sign_in_tries',
      tableCreated: true,
      ...limit,
    });
  const made = [make(OF_NAME), make(OF_ADDRESS)] as const;
  limiters.set(store, made);
  return made;
}

/**
 * Lets somebody try to sign in unless too much was tried. What is right gives the name its tries back.
 *
 * @param attempt whether what was shown is right
 * @throws AppError `tooManyTries` with the minutes to wait
 */
export async function limitTries<Signed>(
  store: Store,
  name: string,
  address: string,
  attempt: () => Promise<Signed | null>,
): Promise<Signed | null> {
  const [ofName, ofAddress] = limitersOf(store);
  const key = name.toLowerCase();
  try {
    // Counted before it is tried: many tries at once are many.
    await Promise.all([ofName.consume(key), ofAddress.consume(address)]);
  } catch (full) {
    if (!(full instanceof RateLimiterRes)) throw full;
    const minutes = Math.max(1, Math.ceil(full.msBeforeNext / 60_000));
    throw new AppError(
      'tooManyTries',
      `Too many tries. Wait ${minutes} min, or ask the owner for a new password.`,
    );
  }
  const signed = await attempt();
  if (signed !== null) await Promise.all([ofName.delete(key), ofAddress.reward(address)]);
  return signed;
}
