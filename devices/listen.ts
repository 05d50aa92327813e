import type { IncomingMessage } from 'node:http';
import type { Server } from 'node:net';

/** Opens a server on loopback. Returns its port. @param port 0 takes any free one */
export function listen(server: Server, port: number): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const address = server.address();
      resolve(typeof address === 'object' && address ? address.port : port);
    });
  });
}

/** The bytes of a request, or `null` for more than `most` of them. A request that breaks off is empty. */
export function readBody(request: IncomingMessage, most: number): Promise<Buffer | null> {
  return new Promise((resolve) => {
    const parts: Buffer[] = [];
    let size = 0;
    request.on('data', (bytes: Buffer) => {
      size += bytes.length;
      if (size <= most) parts.push(bytes);
    });
    request.on('end', () => resolve(size > most ? null : Buffer.concat(parts)));
    request.on('error', () => resolve(Buffer.alloc(0)));
  });
}
