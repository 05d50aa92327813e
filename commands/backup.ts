import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { tellSums } from '#commands/database/copies.ts';
import { requireScratch } from '#commands/database/databaseUrl.ts';
import { joinDatabase } from '#commands/database/joinDatabase.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { workshopHome } from '#commands/workshopHome.ts';
import { backupTo } from '#store/backup/backupFile.ts';

await reportFailure(async () => {
  const [given] = process.argv.slice(2);
  if (!given) throw new Error('say where the copy goes: ./feather backup FILE');
  const file = resolve(process.env['FEATHER_CALLED_FROM'] ?? '.', given);
  if (existsSync(file)) throw new Error(`${file} is there already; nothing was overwritten`);
  const home = workshopHome();
  const isForeign = Boolean(process.env['FEATHER_DATABASE_URL']);
  if (!isForeign && !existsSync(join(home, 'data'))) {
    throw new Error(
      `There is no book in ${home} yet. Another folder: FEATHER_HOME=... ./feather backup FILE`,
    );
  }
  await joinDatabase(home, async (address) => {
    await requireScratch(address);
    const sums = await backupTo(file, address.url, address.scratchUrl, new Date());
    console.log(`${tellSums(sums)} are in ${file}; the copy was read back and is the same.`);
  });
});
