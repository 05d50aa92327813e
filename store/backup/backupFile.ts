import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import { once } from 'node:events';
import { dirname } from 'node:path';
import { createInterface } from 'node:readline';
import { finished } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import type { TableSum } from '#store/backup/backupFormat.ts';
import { dumpStore } from '#store/backup/dumpStore.ts';
import { fillStore, migrateLoaded } from '#store/backup/fillStore.ts';

/**
 * Copies a whole store to a file, as it is at one moment, and proves the copy by filling a scratch database with it and
 * comparing rows and sums. The file takes its name only then.
 *
 * @param url of the store
 * @param scratchUrl of a database that may be emptied
 * @throws Error in plain words; no half copy is left behind
 */
export async function backupTo(
  file: string,
  url: string,
  scratchUrl: string,
  now: Date,
): Promise<readonly TableSum[]> {
  await mkdir(dirname(file), { recursive: true });
  const half = `${file}.part`;
  try {
    const sums = await writeFile(half, url, now);
    await fillStore(scratchUrl, readLines(half));
    requireSame(sums, await dumpStore(scratchUrl, now, () => undefined));
    await rename(half, file);
    return sums;
  } finally {
    await rm(half, { force: true });
  }
}

/**
 * Puts a copy in the place of a store. It is tried in the scratch database first: a copy that cannot be read changes
 * nothing.
 *
 * @throws Error in plain words when the file is no whole copy, or a newer one
 */
export async function restoreFrom(
  file: string,
  url: string,
  scratchUrl: string,
): Promise<readonly TableSum[]> {
  const sums = await fillStore(scratchUrl, readLines(file));
  requireSame(sums, await dumpStore(scratchUrl, new Date(0), () => undefined));
  await migrateLoaded(scratchUrl);
  await fillStore(url, readLines(file));
  requireSame(sums, await dumpStore(url, new Date(0), () => undefined));
  await migrateLoaded(url);
  return sums;
}

async function writeFile(file: string, url: string, now: Date): Promise<readonly TableSum[]> {
  const gzip = createGzip();
  const out = createWriteStream(file, { mode: 0o600 });
  const written = finished(gzip.pipe(out));
  const sums = await dumpStore(url, now, async (line) => {
    if (!gzip.write(`${line}\n`)) await once(gzip, 'drain');
  });
  gzip.end();
  await written;
  return sums;
}

async function* readLines(file: string): AsyncGenerator<string> {
  const input = createReadStream(file);
  const unpacked = createGunzip();
  // An error of the file or of its packing reaches whoever reads the lines.
  input.on('error', (error) => unpacked.destroy(error));
  try {
    yield* createInterface({ input: input.pipe(unpacked), crlfDelay: Infinity });
    await finished(unpacked, { writable: false });
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    if (code === 'ENOENT') throw new Error(`there is no file ${file}`);
    if (code === 'Z_DATA_ERROR' || code === 'Z_BUF_ERROR') {
      throw new Error(`${file} is no copy that \`./feather backup\` made, or it is damaged`);
    }
    throw error;
  }
}

function requireSame(wanted: readonly TableSum[], found: readonly TableSum[]): void {
  const byName = new Map(found.map((one) => [one.table, one]));
  for (const { table, rows, sha256 } of wanted) {
    const there = byName.get(table);
    if (there?.rows === rows && there.sha256 === sha256) continue;
    throw new Error(`the copy of "${table}" is not what was copied: ${there?.rows ?? 0} of ${rows} rows`);
  }
}
