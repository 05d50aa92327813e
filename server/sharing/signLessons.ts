import { createHash, createPrivateKey, createPublicKey, sign, verify } from 'node:crypto';
import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { lessonsSchema, type Lessons } from '#core/sharing/lessons.ts';

/** Lessons as they travel: the very text that was signed, and by whom. Ed25519 of RFC 8032; keys as SPKI, base64. */
export const signedLessonsSchema = z.object({
  format: z.literal('pale-feather-signed-lessons'),
  text: z.string().max(200_000),
  publicKey: z.string().max(200),
  signature: z.string().max(200),
});
export type SignedLessons = z.infer<typeof signedLessonsSchema>;

export function signLessons(lessons: Lessons, privateKey: string): SignedLessons {
  const key = createPrivateKey(privateKey);
  const text = JSON.stringify(lessons);
  return {
    format: 'pale-feather-signed-lessons',
    text,
    publicKey: createPublicKey(key).export({ type: 'spki', format: 'der' }).toString('base64'),
    signature: sign(null, Buffer.from(text), key).toString('base64'),
  };
}

/** Who signs with a key: the SHA-256 of the public one, hex. */
export function giverOf(privateKey: string): string {
  const der = createPublicKey(createPrivateKey(privateKey)).export({ type: 'spki', format: 'der' });
  return createHash('sha256').update(der).digest('hex');
}

/**
 * The lessons that somebody signed, and who: the fingerprint of their key.
 *
 * @throws AppError `badInput` when they were changed on their way, or are none
 */
export function openLessons({ text, publicKey, signature }: SignedLessons): {
  readonly lessons: Lessons;
  readonly giver: string;
} {
  const der = Buffer.from(publicKey, 'base64');
  if (!isSigned(text, der, signature)) {
    throw new AppError('badInput', 'This file was changed after it was signed, or broke on its way.');
  }
  const read = lessonsSchema.safeParse(JSON.parse(text));
  if (!read.success) throw new AppError('badInput', 'This file holds no lessons that can be read here.');
  return { lessons: read.data, giver: createHash('sha256').update(der).digest('hex') };
}

function isSigned(text: string, der: Buffer, signature: string): boolean {
  try {
    const key = createPublicKey({ key: der, type: 'spki', format: 'der' });
    return (
      key.asymmetricKeyType === 'ed25519' &&
      verify(null, Buffer.from(text), key, Buffer.from(signature, 'base64'))
    );
  } catch {
    return false;
  }
}
