import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { migrateUp } from '#commands/database/migrateStore.ts';
import { startDatabase, stopDatabase } from '#commands/database/startDatabase.ts';
import { startWebAnywhere, stopProcesses, type StandInPorts } from '#commands/startApp.ts';
import { withStore } from '#store/connection/withStore.ts';

/** A workshop with an empty book, its own database and its own server. */
export interface BareWorkshop {
  readonly home: string;
  readonly address: string;
  readonly databaseUrl: string;
  /** Stops it and takes all of it away. */
  end(): Promise<void>;
}

/** Stand-ins where nobody listens: the workshop is an open one, in which whoever comes is owner. */
export const NO_MACHINES: StandInPorts = {
  desk: { dataPort: 1, panelPort: 1 },
  roll: { dataPort: 1, panelPort: 1 },
  flat: { dataPort: 1, panelPort: 1 },
};

/**
 * @param name for its folder
 * @param standIns `null`: nobody comes in without signing in
 * @param environment what is set for its server
 */
export async function bareWorkshop(
  name: string,
  standIns: StandInPorts | null,
  environment: Readonly<Record<string, string>> = {},
): Promise<BareWorkshop> {
  const home = mkdtempSync(join(tmpdir(), `feather-${name}-`));
  for (const folder of ['run', 'logs']) mkdirSync(join(home, folder));
  const databaseUrl = await startDatabase(home);
  await withStore(databaseUrl, migrateUp);
  Object.assign(process.env, environment);
  const address = await startWebAnywhere(home, databaseUrl, standIns);
  for (const set of Object.keys(environment)) Reflect.deleteProperty(process.env, set);
  return {
    home,
    address,
    databaseUrl,
    end: async () => {
      await stopProcesses(home);
      await stopDatabase(home);
      rmSync(home, { recursive: true, force: true });
    },
  };
}
