import { randomInt } from 'node:crypto';
import { createServer } from 'node:net';

/**
 * Below the ports that systems give to outgoing connections: a client that knocks at a port of those while nothing
 * listens there may be given that very port, and holds it.
 */
const LOWEST = 15_000;
const HIGHEST = 31_999;
const TRIES = 200;

/** A loopback port that is free now, outside those given to outgoing connections. @throws Error when none is found */
export async function findFreePort(): Promise<number> {
  for (let tries = 0; tries < TRIES; tries++) {
    const port = randomInt(LOWEST, HIGHEST + 1);
    if (await isPortFree(port)) return port;
  }
  throw new Error(`no free port between ${LOWEST} and ${HIGHEST}`);
}

/** Whether nothing listens on a loopback port. */
export function isPortFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });
}
