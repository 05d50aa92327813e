import { readFile } from 'node:fs/promises';
import type { Socket } from 'node:net';

const TABLES = ['/proc/net/tcp', '/proc/net/tcp6'];

/**
 * Bytes of a socket that the other side has not confirmed yet: on their way, or held back because it takes nothing.
 * Read from the system's own table of connections (Linux, proc(5), `tx_queue`).
 *
 * @returns `null` where the system does not tell
 */
export async function undeliveredBytes({ localPort, remotePort }: Socket): Promise<number | null> {
  if (localPort === undefined || remotePort === undefined) return null;
  for (const table of TABLES) {
    const text = await readFile(table, 'latin1').catch(() => '');
    for (const line of text.split('\n').slice(1)) {
      const [, local = '', remote = '', , queues = ''] = line.trim().split(/\s+/);
      if (portOf(local) !== localPort || portOf(remote) !== remotePort) continue;
      return Number.parseInt(queues, 16);
    }
  }
  return null;
}

function portOf(address: string): number {
  return Number.parseInt(address.split(':')[1] ?? '', 16);
}
