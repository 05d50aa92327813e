import { createServer, type Socket } from 'node:net';
import { listen } from '#devices/listen.ts';

/** Only for tests: a machine on the network that does what the test wants with a connection. */
export interface OddMachine {
  readonly port: number;
  /** Bytes that came, over all connections. */
  readonly received: () => string;
  close(): void;
}

export async function oddMachine(behave: (socket: Socket) => void): Promise<OddMachine> {
  const sockets = new Set<Socket>();
  let received = '';
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => socket.destroy());
    socket.on('data', (bytes) => (received += bytes.toString('latin1')));
    behave(socket);
  });
  const port = await listen(server, 0);
  return {
    port,
    received: () => received,
    close: () => {
      for (const socket of sockets) socket.destroy();
      server.close();
    },
  };
}
