import { inject } from 'vitest';

declare module 'vitest' {
  interface ProvidedContext {
    /** Whether seeded tests do all that they can. */
    isDeep: boolean;
  }
}

/** How often a seeded test repeats what it does: so often in every run, all of it in a deep one. */
export function often(everyRun: number, deepRun: number): number {
  return inject('isDeep') ? deepRun : everyRun;
}
