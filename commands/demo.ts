import { buildApp } from '#commands/buildApp.ts';
import { homeFolder } from '#commands/homeFolder.ts';
import { migrateUp } from '#commands/database/migrateStore.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { requirePort } from '#commands/ports/requirePort.ts';
import { startStandIns, startWeb, stopProcesses } from '#commands/startApp.ts';
import { openDatabase } from '#commands/database/databaseUrl.ts';
import { startKeeper } from '#commands/keeper.ts';
import { requireDemoStore } from '#commands/database/prepareStore.ts';
import { markDemoStore } from '#store/repositories/workshop/workshop.ts';
import { seedDemo } from '#demo/seedDemo.ts';
import { withStore } from '#store/connection/withStore.ts';

await reportFailure(async () => {
  const home = homeFolder('demo');
  await stopProcesses(home);
  const port = await requirePort();
  await buildApp();
  const address = await openDatabase(home);
  // A private instance in the demo's own folder holds nothing but the demo.
  if (!address.isOwn) await requireDemoStore(address.url);
  await withStore(address.url, async (store) => {
    await migrateUp(store);
    await markDemoStore(store);
    await seedDemo(store, new Date());
  });
  const pace = Number(process.env['FEATHER_CUTTER_PACE'] ?? 6);
  const standIns = await startStandIns(home, pace);
  const shown = await startWeb(home, port, address.url, standIns);
  startKeeper(home, { ...address, port, standIns, pace });
  console.log(`Pale Feather is ready: ${shown}`);
  console.log('Whoever opens it is signed in by itself as the demo’s owner.');
  console.log('Stop it with ./feather stop');
  // The first page costs more than all others: nobody should wait for it who opens the address.
  await fetch(shown);
});
