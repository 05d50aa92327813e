import { existsSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { tellSums } from '#commands/database/copies.ts';
import { requireScratch, type StoreAddress } from '#commands/database/databaseUrl.ts';
import { requireRoom } from '#commands/workshopHome.ts';
import { withStore } from '#store/connection/withStore.ts';
import { backupTo } from '#store/backup/backupFile.ts';

/** A book in which nothing stands needs no copy; the first one is made when something does. */
async function isEmpty(url: string): Promise<boolean> {
  const [entry] = await withStore(url, (store) => store('audit_entries').select('id').limit(1));
  return entry === undefined;
}

/** So many daily copies are kept. */
const KEPT_DAYS = 14;
const DAILY = /^daily-\d{4}-\d{2}-\d{2}\.feather$/;

/** Makes the copy of a day once, and lets the oldest go. @param say told what was done */
export async function keepDailyCopy(
  { home, ...address }: StoreAddress & { readonly home: string },
  now: Date,
  say: (words: string) => void,
  keptDays = KEPT_DAYS,
): Promise<void> {
  const folder = join(home, 'copies');
  const file = join(folder, `daily-${now.toISOString().slice(0, 10)}.feather`);
  if (existsSync(file) || (await isEmpty(address.url))) return;
  requireRoom(folder);
  await requireScratch(address);
  const sums = await backupTo(file, address.url, address.scratchUrl, now);
  say(`copied ${tellSums(sums)} to ${file}`);
  const old = readdirSync(folder)
    .filter((name) => DAILY.test(name))
    .sort()
    .slice(0, -keptDays);
  for (const name of old) rmSync(join(folder, name));
}
