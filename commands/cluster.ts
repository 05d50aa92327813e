import { pause } from '#commands/backgroundProcess.ts';
import { buildApp } from '#commands/buildApp.ts';
import { addNode, isReady, startGalera, stopGalera } from '#commands/cluster/galera.ts';
import { galeraTools } from '#commands/cluster/galeraTools.ts';
import { migrateUp } from '#commands/database/migrateStore.ts';
import { homeFolder } from '#commands/homeFolder.ts';
import { findFreePort } from '#commands/ports/freePort.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { isHealthy, startStandIns, startWeb, stopProcesses } from '#commands/startApp.ts';
import { seedDemo } from '#demo/seedDemo.ts';
import { withStore } from '#store/connection/withStore.ts';
import { markDemoStore } from '#store/repositories/workshop/workshop.ts';

/**
 * Three nodes and two servers on loopback with the demo, for trying what happens when one of them dies. Stays in the
 * foreground and brings back what ended, until it is interrupted.
 */
const LOOK_MS = 2_000;
const PACE = Number(process.env['FEATHER_CUTTER_PACE'] ?? 6);

await reportFailure(async () => {
  const homes = [homeFolder('cluster'), homeFolder('cluster-beside')] as const;
  for (const home of homes) await stopProcesses(home);
  galeraTools();
  await buildApp();
  console.log('Starting three nodes ...');
  const galera = await startGalera(`${homes[0]}/galera`);
  await withStore(galera.url, async (store) => {
    await migrateUp(store);
    await markDemoStore(store);
    await seedDemo(store, new Date());
  });
  const standIns = await startStandIns(homes[0], PACE);
  const servers: Server[] = [];
  for (const home of homes) {
    const port = await findFreePort();
    const address = await startWeb(home, port, galera.url, standIns);
    const start = () => startWeb(home, port, galera.url, standIns);
    servers.push({ address, start });
    console.log(`A server: ${address}, its process id in ${home}/run/web.pid`);
  }
  for (const { name, home, ports } of galera.nodes) {
    console.log(`Node ${name} at 127.0.0.1:${ports.sql}, its process id in ${home}/run/database.pid`);
  }
  console.log('Kill what you like: runs go on. Ctrl-C stops everything; the data stays.');
  let isEnding = false;
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => (isEnding = true));
  while (!isEnding) {
    await pause(LOOK_MS);
    for (const node of galera.nodes) {
      if (isEnding || (await isReady(node))) continue;
      console.log(`node ${node.name} is away: started again`);
      await addNode(galera, node).catch((error: unknown) => console.log(String(error)));
    }
    for (const { address, start } of servers) {
      if (isEnding || (await isHealthy(address, LOOK_MS))) continue;
      console.log(`the server ${address} is away: started again`);
      await start().catch((error: unknown) => console.log(String(error)));
    }
  }
  for (const home of homes) await stopProcesses(home);
  await stopGalera(galera);
});

interface Server {
  readonly address: string;
  readonly start: () => Promise<string>;
}
