import type { Operation } from '#core/stack/operation.ts';

/** The two keys that choose an operation: o, and the letter it begins with. */
export const OPERATION_KEYS: Readonly<Record<Operation, string>> = {
  kiss: 'o k',
  through: 'o t',
  perforated: 'o p',
  score: 'o s',
  crease: 'o c',
};
