import { createServer, type RequestListener } from 'node:http';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import sirv from 'sirv';
import { z } from 'zod';
import { ROOT } from '#commands/homeFolder.ts';
import { isKnownHost } from '#commands/knownHost.ts';

/** The web server: shipped files first, everything else through the application. Listens on loopback only. */
const { FEATHER_PORT: port } = z
  .object({ FEATHER_PORT: z.coerce.number().int().min(1).max(65535).default(4310) })
  .parse(process.env);

interface Application {
  readonly handler: (...given: [...Parameters<RequestListener>, next: (error?: unknown) => void]) => void;
}

const entry = pathToFileURL(join(ROOT, 'dist/server/entry.mjs')).href;
const { handler } = (await import(entry)) as Application;
const files = sirv(join(ROOT, 'dist/client'), {
  setHeaders: (response, path) => {
    const isNamedByContent = path.startsWith('/_astro/');
    response.setHeader(
      'cache-control',
      isNamedByContent ? 'public, max-age=31536000, immutable' : 'no-cache',
    );
    response.setHeader('x-content-type-options', 'nosniff');
  },
});

const server = createServer({ maxHeaderSize: 16_384, requestTimeout: 30_000 }, (request, response) => {
  if (!isKnownHost(request.headers.host)) {
    response.statusCode = 421;
    response.end('This application is served under another name.');
    return;
  }
  files(request, response, () =>
    handler(request, response, (error) => {
      response.statusCode = error ? 500 : 404;
      response.end(error ? 'The server failed.' : 'There is nothing here.');
    }),
  );
});

server.listen(port, '127.0.0.1');
server.on('error', (error) => {
  console.error(`The server could not listen on 127.0.0.1:${port}: ${error.message}`);
  process.exit(1);
});

for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, shutDown);

/** Lets answers under way finish, then hangs up on streams that never would. */
function shutDown(): void {
  server.close(() => process.exit(0));
  server.closeIdleConnections();
  setTimeout(() => server.closeAllConnections(), 1_500).unref();
}
