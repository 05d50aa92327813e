import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { isBackgroundRunning } from '#commands/backgroundProcess.ts';
import { openDatabase, requireScratch } from '#commands/databaseUrl.ts';
import { stopKeeper } from '#commands/keeper.ts';
import { migrateUp } from '#commands/migrateStore.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { stopProcesses } from '#commands/startApp.ts';
import { stopDatabase } from '#commands/startDatabase.ts';
import { workshopHome } from '#commands/workshopHome.ts';
import { backupTo, restoreFrom } from '#store/backup/backupFile.ts';
import { connectStore } from '#store/connection/connectStore.ts';

await reportFailure(async () => {
  const [given] = process.argv.slice(2);
  if (!given) throw new Error('say which copy to bring back: ./feather restore FILE');
  const file = resolve(process.env['FEATHER_CALLED_FROM'] ?? '.', given);
  if (!existsSync(file)) throw new Error(`there is no file ${file}`);
  const home = workshopHome();
  const wasServed = isBackgroundRunning(home, 'web');
  await stopKeeper(home);
  await stopProcesses(home);
  const address = await openDatabase(home);
  await requireScratch(address);
  const store = connectStore(address.url);
  try {
    if (await store.schema.hasTable('knex_migrations')) {
      const stamp = new Date().toISOString().replace(/[:.]/g, '-');
      const before = join(home, 'copies', `before-restore-${stamp}.feather`);
      await backupTo(before, address.url, address.scratchUrl, new Date());
      console.log(`What was there before is kept in ${before}`);
    }
    const sums = await restoreFrom(file, address.url, address.scratchUrl);
    await migrateUp(store);
    const rows = sums.reduce((sum, one) => sum + one.rows, 0);
    console.log(`${rows} rows of ${sums.length} tables are back. Go on with ./feather start.`);
  } finally {
    await store.destroy();
    if (address.isOwn) await stopDatabase(home);
  }
  if (wasServed) console.log('The application was stopped for this.');
});
