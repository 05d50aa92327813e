import { migrateUp } from '#commands/database/migrateStore.ts';
import { startStandIns, startWebAnywhere } from '#commands/startApp.ts';
import { seedDemo } from '#demo/seedDemo.ts';
import { withStore } from '#store/connection/withStore.ts';

/**
 * The built application on an empty store filled with the demo, with its stand-ins, on a free port. For tests and
 * pictures: whatever was in that database is gone.
 *
 * @param databaseUrl of the private instance in `home`, never of anybody's book
 * @param pace how many times faster than real the stand-ins move
 */
export async function startFreshDemo(home: string, databaseUrl: string, pace: number): Promise<string> {
  await withStore(databaseUrl, async (store) => {
    await store.raw('DROP DATABASE feather');
    await store.raw('CREATE DATABASE feather CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci');
  });
  await withStore(databaseUrl, async (store) => {
    await migrateUp(store);
    await seedDemo(store, new Date());
  });
  const address = await startWebAnywhere(home, databaseUrl, await startStandIns(home, pace));
  // The first page costs more than all others: no test should measure it by chance.
  await fetch(address);
  return address;
}
