import { createServer, type IncomingMessage, type RequestListener, type ServerResponse } from 'node:http';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import sirv from 'sirv';
import { z } from 'zod';
import { ROOT } from '#commands/homeFolder.ts';
import { cutSlowBody } from '#commands/cutSlowBody.ts';
import { isKnownHost } from '#commands/knownHost.ts';

/** The web server: shipped files first, everything else through the application. Listens on loopback only. */
const { FEATHER_PORT: port } = z
  .object({ FEATHER_PORT: z.coerce.number().int().min(1).max(65535).default(4310) })
  .parse(process.env);

const MISSING = '/404';
/** Headers by which a proxy says for whom it asks. */
const FORWARDED = [
  'forwarded',
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-port',
  'x-forwarded-proto',
];
/** On every answer, also on those that no page makes. */
const HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
} as const;

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
  },
});

/** A head that takes longer is no request of a browser, ms. A body may take longer while it comes at a fair pace. */
const HEAD_MS = 10_000;
/** A quiet line stays open for so long, ms: closed after the usual 5 s it met requests that were on their way. */
const QUIET_MS = 65_000;
const limits = {
  maxHeaderSize: 16_384,
  headersTimeout: HEAD_MS,
  requestTimeout: 300_000,
  keepAliveTimeout: QUIET_MS,
};

const server = createServer({ ...limits, connectionsCheckingInterval: 1_000 }, (request, response) => {
  for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
  cutSlowBody(request, response);
  // No proxy stands before it: what says so was written by who asks.
  for (const name of FORWARDED) request.headers[name] = undefined;
  if (!isKnownHost(request.headers.host)) {
    response.statusCode = 421;
    response.end('This application is served under another name.');
    return;
  }
  files(request, response, () =>
    handler(request, response, (error) => answerMissing(request, response, error)),
  );
});

/** What is no address of the application gets its page that says so; a script gets it in words. */
function answerMissing(request: IncomingMessage, response: ServerResponse, error: unknown): void {
  const isPage = request.method === 'GET' && !request.url?.startsWith('/api/') && request.url !== MISSING;
  if (!error && isPage) {
    request.url = MISSING;
    handler(request, response, (again) => answerMissing(request, response, again));
    return;
  }
  response.statusCode = error ? 500 : 404;
  response.setHeader('content-type', 'application/json');
  const [code, title, message] = error
    ? ['unforeseen', 'The server failed', 'Please try again.']
    : ['notFound', 'Not found', 'There is nothing at this address.'];
  response.end(JSON.stringify({ error: { code, title, message } }));
}

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
