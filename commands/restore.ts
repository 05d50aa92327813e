import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { isBackgroundRunning } from '#commands/backgroundProcess.ts';
import { nameCopy, tellSums } from '#commands/database/copies.ts';
import { openDatabase, requireScratch } from '#commands/database/databaseUrl.ts';
import { migrateUp } from '#commands/database/migrateStore.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { stopProcesses } from '#commands/startApp.ts';
import { stopDatabase } from '#commands/database/startDatabase.ts';
import { workshopHome } from '#commands/workshopHome.ts';
import { backupTo, restoreFrom } from '#store/backup/backupFile.ts';
import { withStore } from '#store/connection/withStore.ts';

await reportFailure(async () => {
  const [given] = process.argv.slice(2);
  if (!given) throw new Error('say which copy to bring back: ./feather restore FILE');
  const file = resolve(process.env['FEATHER_CALLED_FROM'] ?? '.', given);
  if (!existsSync(file)) throw new Error(`there is no file ${file}`);
  const home = workshopHome();
  const wasServed = isBackgroundRunning(home, 'web');
  await stopProcesses(home);
  const address = await openDatabase(home);
  await requireScratch(address);
  const { url, scratchUrl } = address;
  try {
    if (await withStore(url, (store) => store.schema.hasTable('knex_migrations'))) {
      const now = new Date();
      const before = nameCopy(home, 'before-restore', now);
      await backupTo(before, url, scratchUrl, now);
      console.log(`What was there before is kept in ${before}`);
    }
    const sums = await restoreFrom(file, url, scratchUrl);
    await withStore(url, migrateUp);
    console.log(`${tellSums(sums)} are back. Go on with ./feather start.`);
  } finally {
    if (address.isOwn) await stopDatabase(home);
  }
  if (wasServed) console.log('The application was stopped for this.');
});
