import { createServer, type IncomingMessage, type RequestListener, type ServerResponse } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import type { Server } from 'node:net';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import sirv from 'sirv';
import { ROOT } from '#commands/homeFolder.ts';
import { cutSlowBody } from '#commands/cutSlowBody.ts';
import { madeCertificate, ownCertificate } from '#server/network/certificateFolder.ts';
import { listOwnNames } from '#server/network/names.ts';
import { readNetworkSettings, type NetworkSettings } from '#server/network/networkSettings.ts';
import { stampRequest } from '#server/network/whereAsked.ts';

/**
 * The web server: shipped files first, everything else through the application. Plain on loopback; with TLS on the
 * workshop's network, when it is told to.
 */
const settings = readNetworkSettings(process.env);

const MISSING = '/404';
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
    // A worker's own policy holds for what it fetches: pages of this application.
    if (path === '/sw.js') response.setHeader('content-security-policy', "default-src 'self'");
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
  connectionsCheckingInterval: 1_000,
};
/** A router may give out other addresses at any time; so often this computer's are read again, ms. */
const LOOK_EVERY_MS = 15_000;

let own = listOwnNames(settings.names);

function answer(request: IncomingMessage, response: ServerResponse, isNetwork: boolean): void {
  for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
  cutSlowBody(request, response);
  if (!stampRequest(request, { isNetwork, own, publicUrl: settings.publicUrl })) {
    response.statusCode = 421;
    response.end('This application is served under another name.');
    return;
  }
  files(request, response, () =>
    handler(request, response, (error) => answerMissing(request, response, error)),
  );
}

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

/** Ends the process with the reason when it cannot listen. */
function listen(server: Server, port: number, host?: string): void {
  server.on('error', (error) => {
    console.error(`The server could not listen on ${host ?? 'this computer'}:${port}: ${error.message}`);
    process.exit(1);
  });
  server.listen(port, host);
}

function certificateNow({ own: files, tlsFolder }: NetworkSettings) {
  if (files) return ownCertificate(files.certificate, files.key, new Date());
  if (!tlsFolder) throw new Error('FEATHER_TLS_FOLDER is needed to listen on the network.');
  return madeCertificate(tlsFolder, own, new Date());
}

/** Listens on every address of this computer; the certificate follows its names and is renewed while it serves. */
async function openNetwork(port: number) {
  let shown = await certificateNow(settings);
  const server = createTlsServer(
    { ...limits, minVersion: 'TLSv1.2', cert: shown.certificate, key: shown.key },
    (request, response) => answer(request, response, true),
  );
  listen(server, port);
  const look = async () => {
    own = listOwnNames(settings.names);
    const next = await certificateNow(settings);
    if (next.certificate === shown.certificate) return;
    shown = next;
    server.setSecureContext({ minVersion: 'TLSv1.2', cert: next.certificate, key: next.key });
  };
  setInterval(() => {
    look().catch((error: unknown) => console.error(`The certificate was not renewed: ${String(error)}`));
  }, LOOK_EVERY_MS).unref();
  return server;
}

const local = createServer(limits, (request, response) => answer(request, response, false));
const servers = settings.networkPort === null ? [local] : [local, await openNetwork(settings.networkPort)];
listen(local, settings.port, '127.0.0.1');

for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, shutDown);

/** Lets answers under way finish, then hangs up on streams that never would. */
function shutDown(): void {
  let open = servers.length;
  for (const server of servers) {
    server.close(() => {
      open -= 1;
      if (open === 0) process.exit(0);
    });
    server.closeIdleConnections();
  }
  setTimeout(() => {
    for (const server of servers) server.closeAllConnections();
  }, 1_500).unref();
}
