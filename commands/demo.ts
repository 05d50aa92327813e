import { buildApp } from '#commands/buildApp.ts';
import { homeFolder } from '#commands/homeFolder.ts';
import { migrateUp } from '#commands/migrateStore.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { requirePort } from '#commands/requirePort.ts';
import { startStandIns, startWeb, stopProcesses } from '#commands/startApp.ts';
import { startDatabase } from '#commands/startDatabase.ts';
import { seedDemo } from '#demo/seedDemo.ts';
import { connectStore } from '#store/connection/connectStore.ts';

await reportFailure(async () => {
  const home = homeFolder('demo');
  await stopProcesses(home);
  const port = await requirePort();
  buildApp();
  const databaseUrl = process.env['FEATHER_DATABASE_URL'] ?? (await startDatabase(home));
  const store = connectStore(databaseUrl);
  try {
    await migrateUp(store);
    await seedDemo(store, new Date());
  } finally {
    await store.destroy();
  }
  const standIns = await startStandIns(home, Number(process.env['FEATHER_CUTTER_PACE'] ?? 6));
  const address = await startWeb(home, port, databaseUrl, standIns);
  console.log(`Pale Feather is ready: ${address}`);
  console.log('Stop it with ./feather stop');
  // The first page costs more than all others: nobody should wait for it who opens the address.
  await fetch(address);
});
