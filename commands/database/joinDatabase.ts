import { isBackgroundRunning } from '#commands/backgroundProcess.ts';
import { openDatabase, ownAddress, type StoreAddress } from '#commands/database/databaseUrl.ts';
import { ownDatabaseUrl, stopDatabase } from '#commands/database/startDatabase.ts';

/**
 * Works on the database of a home while whoever else works there goes on; one that was not running is started for it.
 *
 * @param act given where it answers
 */
export async function joinDatabase<Done>(
  home: string,
  act: (address: StoreAddress) => Promise<Done>,
): Promise<Done> {
  const isForeign = Boolean(process.env['FEATHER_DATABASE_URL']);
  const wasRunning = isBackgroundRunning(home, 'database');
  const address = wasRunning && !isForeign ? ownAddress(ownDatabaseUrl(home)) : await openDatabase(home);
  try {
    return await act(address);
  } finally {
    if (!wasRunning && address.isOwn) await stopDatabase(home);
  }
}
