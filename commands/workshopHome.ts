import { mkdirSync, statfsSync } from 'node:fs';
import { homedir } from 'node:os';
import { join, resolve } from 'node:path';
import { ROOT } from '#commands/homeFolder.ts';

/** Less room than this is too little for a database, its logs and a copy, MB. */
const LEAST_FREE_MB = 500;

/**
 * Where a workshop keeps its own: data, copies, logs, process ids. Outside the application's folder, so that neither an
 * update nor a deleted clone takes it away.
 *
 * @throws Error in plain words when it lies in the clone, cannot be made, or its disk is full
 */
export function workshopHome(environment: NodeJS.ProcessEnv = process.env): string {
  const given = environment['FEATHER_HOME']?.trim();
  const share = environment['XDG_DATA_HOME']?.trim() ?? join(homedir(), '.local', 'share');
  const home = resolve(given ? given : join(share, 'pale-feather'));
  if (home === ROOT || home.startsWith(`${ROOT}/`)) {
    throw new Error(
      `FEATHER_HOME is ${home}, inside the application's own folder: choose a folder outside it.`,
    );
  }
  try {
    for (const name of ['run', 'logs', 'copies'])
      mkdirSync(join(home, name), { recursive: true, mode: 0o700 });
  } catch (error) {
    throw new Error(`The folder ${home} cannot be made or written: ${(error as Error).message}`);
  }
  requireRoom(home);
  return home;
}

/** @throws Error when the disk of a folder is nearly full */
export function requireRoom(folder: string): void {
  const { bavail, bsize } = statfsSync(folder);
  const freeMb = Math.floor((bavail * bsize) / 1_000_000);
  if (freeMb >= LEAST_FREE_MB) return;
  throw new Error(
    `Only ${freeMb} MB are free on the disk of ${folder}; at least ${LEAST_FREE_MB} MB are needed.`,
  );
}
