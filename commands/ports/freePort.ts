import { randomInt } from 'node:crypto';
import { createServer } from 'node:net';

/**
 * Below the ports that systems give to outgoing connections: a client that knocks at a port of those while nothing
 * listens there may be given that very port, and holds it.
 */
const LOWEST = 15_000;
const HIGHEST = 31_999;
const TRIES = 200;

/** What this process has given out: it may not listen yet, and looks free. */
const givenOut = new Set<number>();

/** Somebody took a port between looking and listening. */
export class PortTakenError extends Error {}

/**
 * A loopback port that is free now, outside those given to outgoing connections, and given out once.
 *
 * @throws Error when none is found
 */
export async function findFreePort(): Promise<number> {
  for (let tries = 0; tries < TRIES; tries++) {
    const port = randomInt(LOWEST, HIGHEST + 1);
    if (givenOut.has(port)) continue;
    // Written down before it is tried: two that look at once would both find it free.
    givenOut.add(port);
    if (await isPortFree(port)) return port;
  }
  throw new Error(`no free port between ${LOWEST} and ${HIGHEST}`);
}

/**
 * What a start on free ports returns. When one of them was taken by another program meanwhile, others are tried, three
 * times in all.
 *
 * @param names what it needs ports for
 * @throws Error what the start throws for any other reason, or the third time
 */
export async function startOnFreePorts<Name extends string, Started>(
  names: readonly Name[],
  start: (ports: Readonly<Record<Name, number>>) => Promise<Started>,
): Promise<Started> {
  for (let tries = 1; ; tries++) {
    const ports: [Name, number][] = [];
    for (const name of names) ports.push([name, await findFreePort()]);
    try {
      return await start(Object.fromEntries(ports) as Record<Name, number>);
    } catch (error) {
      if (!(error instanceof PortTakenError) || tries === 3) throw error;
    }
  }
}

/** Whether nothing listens on a loopback port. */
export function isPortFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });
}
