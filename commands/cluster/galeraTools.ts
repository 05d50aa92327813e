import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '#commands/homeFolder.ts';
import { TOOLS } from '#commands/database/startDatabase.ts';

/** Where what nodes fetch their data with is put for trying: the package would start a service of its own. */
const FOLDER = join(ROOT, '.feather', 'galera-tools');
const SCRIPT = 'usr/bin/wsrep_sst_rsync';

/** The path on which a node finds what it fetches its data with. */
export const GALERA_PATH = `${join(FOLDER, 'usr/bin')}:${TOOLS}`;

/**
 * Sees that the scripts by which a node fetches everything from another are there. They come with Debian's package
 * mariadb-server, of which nothing is installed: it is unpacked beside.
 *
 * @throws Error when the package cannot be had
 */
export function galeraTools(): void {
  if (existsSync(join(FOLDER, SCRIPT))) return;
  const half = `${FOLDER}.half`;
  rmSync(half, { recursive: true, force: true });
  mkdirSync(half, { recursive: true });
  try {
    execFileSync('apt-get', ['download', '-qq', 'mariadb-server'], { cwd: half, stdio: 'pipe' });
    const file = readdirSync(half).find((name) => name.endsWith('.deb'));
    execFileSync('dpkg', ['-x', join(half, file ?? ''), half], { stdio: 'pipe' });
  } catch (error) {
    throw new Error(`Debian's package mariadb-server could not be fetched: ${(error as Error).message}`);
  }
  const script = join(half, SCRIPT);
  // Its receiver would drop to another user, who may not write to a folder that is its owner's alone.
  const own = `use chroot = no\nuid = ${process.getuid?.() ?? 0}\ngid = ${process.getgid?.() ?? 0}`;
  writeFileSync(script, readFileSync(script, 'utf8').replace(/^use chroot = no$/m, own), { mode: 0o755 });
  rmSync(FOLDER, { recursive: true, force: true });
  renameSync(half, FOLDER);
}
