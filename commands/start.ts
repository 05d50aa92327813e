import { buildApp } from '#commands/buildApp.ts';
import { openDatabase } from '#commands/database/databaseUrl.ts';
import { startKeeper } from '#commands/keeper.ts';
import { prepareStore } from '#commands/database/prepareStore.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { requirePort } from '#commands/ports/requirePort.ts';
import { startWeb, stopProcesses } from '#commands/startApp.ts';
import { workshopHome } from '#commands/workshopHome.ts';

await reportFailure(async () => {
  const home = workshopHome();
  await stopProcesses(home);
  const port = await requirePort();
  await buildApp();
  const address = await openDatabase(home);
  const copy = await prepareStore(home, address, new Date());
  if (copy) console.log(`Before the book was brought up to date, a copy was kept: ${copy}`);
  const shown = await startWeb(home, port, address.url, null);
  startKeeper(home, { ...address, port, standIns: null });
  console.log(`Pale Feather is ready: ${shown}`);
  console.log(`Your book, its daily copies and logs are in ${home}`);
  console.log('Stop it with ./feather stop; everything is kept.');
  await fetch(shown);
});
