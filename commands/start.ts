import { join } from 'node:path';
import { buildApp } from '#commands/buildApp.ts';
import { openDatabase } from '#commands/database/databaseUrl.ts';
import { startKeeper } from '#commands/keeper.ts';
import { prepareStore } from '#commands/database/prepareStore.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { requirePort } from '#commands/ports/requirePort.ts';
import { startWeb, stopProcesses } from '#commands/startApp.ts';
import { describeNetwork } from '#server/network/describeNetwork.ts';
import { readNetworkSettings } from '#server/network/networkSettings.ts';
import { workshopHome } from '#commands/workshopHome.ts';

/** Where the workshop's network finds it unless another port is set. */
const NETWORK_PORT = 4311;

await reportFailure(async () => {
  // The keeper and the server read it from here.
  if (process.argv.includes('--network')) process.env['FEATHER_NETWORK_PORT'] ||= String(NETWORK_PORT);
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
  for (const line of sayNetwork(home)) console.log(line);
  console.log(`Your book, its daily copies and logs are in ${home}`);
  console.log('Stop it with ./feather stop; everything is kept.');
  await fetch(shown);
});

/** What is said at the console of how phones get here. */
function sayNetwork(home: string): readonly string[] {
  const settings = readNetworkSettings({ ...process.env, FEATHER_TLS_FOLDER: join(home, 'tls') });
  const { addresses, authority } = describeNetwork(settings);
  if (addresses.length === 0) return [];
  return [
    'On other computers and phones:',
    ...addresses.map((address) => `  ${address}`),
    ...(authority
      ? [
          'They warn until they know this workshop; the page /on-a-phone says how. SHA-256 of its certificate:',
          `  ${authority.fingerprint}`,
        ]
      : []),
  ];
}
