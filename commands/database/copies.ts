import { join } from 'node:path';
import type { TableSum } from '#store/backup/backupFormat.ts';

/** The file of a copy that is made before something changes, named after what and when. */
export function nameCopy(home: string, before: 'before-update' | 'before-restore', now: Date): string {
  return join(home, 'copies', `${before}-${now.toISOString().replace(/[:.]/g, '-')}.feather`);
}

/** What a copy holds, in words. @example tellSums(sums) // '54 rows of 40 tables' */
export function tellSums(sums: readonly TableSum[]): string {
  return `${sums.reduce((sum, { rows }) => sum + rows, 0)} rows of ${sums.length} tables`;
}
