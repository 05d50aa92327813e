import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { findFreePort } from '#commands/ports/freePort.ts';
import { ROOT } from '#commands/homeFolder.ts';

/** A workshop that a test starts as its owner would. */
export interface OwnWorkshop {
  readonly address: string;
  /** Runs a command of `./feather` for this workshop. @returns what it said */
  readonly feather: (
    command: 'start' | 'stop' | 'backup' | 'restore',
    ...given: readonly string[]
  ) => Promise<string>;
}

/** @param home where its book lies @param from the folder that commands are called from */
export async function ownWorkshop(home: string, from: string): Promise<OwnWorkshop> {
  const port = await findFreePort();
  const { FEATHER_DATABASE_URL: _none, ...rest } = process.env;
  const env = { ...rest, FEATHER_HOME: home, FEATHER_PORT: String(port), FEATHER_CALLED_FROM: from };
  const run = promisify(execFile);
  return {
    address: `http://127.0.0.1:${port}`,
    feather: async (command, ...given) => {
      const script = join(ROOT, `commands/${command}.ts`);
      const { stdout } = await run(process.execPath, ['--import', 'tsx', script, ...given], {
        cwd: ROOT,
        env,
      });
      return stdout;
    },
  };
}
