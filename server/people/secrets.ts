import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';

/**
 * Argon2id with 19 MiB, two passes and one lane: OWASP Password Storage Cheat Sheet, and RFC 9106 for the function. The
 * library's usual kind is argon2id; its list of kinds is a constant that cannot be imported one file at a time.
 */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;
/** 256 bits: more than ASVS 5, 7.2.3, asks of a key that is guessed at. */
const KEY_BYTES = 32;
/** What is checked where nobody has that name, so that an answer takes as long. */
let nobodysHash: Promise<string> | undefined;

/** @returns a PHC string with its own salt */
export function hashSecret(secret: string): Promise<string> {
  return hash(secret.normalize('NFKC'), COST);
}

/** Whether a secret is the one that was hashed; as slow where there is none. */
export async function isSecret(kept: string | null, secret: string): Promise<boolean> {
  nobodysHash ??= hashSecret(randomBytes(KEY_BYTES).toString('hex'));
  const isRight = await verify(kept ?? (await nobodysHash), secret.normalize('NFKC'));
  return kept !== null && isRight;
}

/** What a browser or a script shows from now on, and what the store keeps of it. */
export function makeKey(prefix = ''): { readonly key: string; readonly hash: string } {
  const key = prefix + randomBytes(KEY_BYTES).toString('base64url');
  return { key, hash: hashKey(key) };
}

/** A key has enough bits of its own: a plain hash keeps what the store holds from opening anything. */
export function hashKey(key: string): string {
  return createHash('sha256').update(key).digest('hex');
}
