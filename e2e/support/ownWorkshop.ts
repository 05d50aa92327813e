import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { findFreePort } from '#commands/ports/freePort.ts';
import { ROOT } from '#commands/homeFolder.ts';

/** A workshop that a test starts as its owner would. */
export interface OwnWorkshop {
  readonly address: string;
  /** Signs in as its owner, who is made where there is none. @returns the headers that show it */
  readonly signIn: () => Promise<{ readonly cookie: string }>;
  /** Runs a command of `./feather` for this workshop. @returns what it said */
  readonly feather: (
    command: 'start' | 'stop' | 'backup' | 'restore' | 'owner-password',
    ...given: readonly string[]
  ) => Promise<string>;
}

/** The owner of a workshop of a test. */
export const OWNER = { name: 'Runa', password: 'wet carton 7 gulls' };

/** @param home where its book lies @param from the folder that commands are called from */
export async function ownWorkshop(home: string, from: string): Promise<OwnWorkshop> {
  const port = await findFreePort();
  const { FEATHER_DATABASE_URL: _none, ...rest } = process.env;
  const env = { ...rest, FEATHER_HOME: home, FEATHER_PORT: String(port), FEATHER_CALLED_FROM: from };
  const run = promisify(execFile);
  const address = `http://127.0.0.1:${port}`;
  const come = (path: string) =>
    fetch(address + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(OWNER),
    });
  return {
    address,
    signIn: async () => {
      const made = await come('/api/owner');
      const reply = made.status === 201 ? made : await come('/api/sessions');
      const key = /feather_session=[\w-]+/.exec(reply.headers.get('set-cookie') ?? '')?.[0];
      if (!key) throw new Error(`nobody gets in: ${reply.status} ${await reply.text()}`);
      return { cookie: key };
    },
    feather: async (command, ...given) => {
      const script = join(ROOT, `commands/${command === 'owner-password' ? 'ownerPassword' : command}.ts`);
      const { stdout } = await run(process.execPath, ['--import', 'tsx', script, ...given], {
        cwd: ROOT,
        env,
      });
      return stdout;
    },
  };
}
