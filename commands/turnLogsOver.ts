import { copyFileSync, existsSync, readdirSync, renameSync, statSync, truncateSync } from 'node:fs';
import { join } from 'node:path';

/** A log that is larger is turned over, bytes. */
const MOST_BYTES = 5_000_000;
/** So many older ones are kept beside it. */
const KEPT = 3;

/**
 * Turns large logs over: what was written is moved aside, and the process goes on writing into the same file, which it
 * opened for appending.
 */
export function turnLogsOver(home: string, mostBytes = MOST_BYTES): void {
  const folder = join(home, 'logs');
  for (const name of readdirSync(folder).filter((one) => one.endsWith('.log'))) {
    const file = join(folder, name);
    if (statSync(file).size <= mostBytes) continue;
    for (let number = KEPT - 1; number >= 1; number--) {
      if (existsSync(`${file}.${number}`)) renameSync(`${file}.${number}`, `${file}.${number + 1}`);
    }
    copyFileSync(file, `${file}.1`);
    truncateSync(file);
  }
}
