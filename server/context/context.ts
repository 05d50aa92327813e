import pino from 'pino';
import { z } from 'zod';
import { readNetworkSettings, type NetworkSettings } from '#server/network/networkSettings.ts';
import { ChangeFeed } from '#server/events/changeFeed.ts';
import { Leases } from '#server/several/leases.ts';
import { dropLive } from '#server/runs/live.ts';
import { sightOf } from '#server/runs/runHub.ts';
import type { OwnPort } from '#server/links/refuseOwnAddress.ts';
import { isStoreUrl, listStoreHosts } from '#store/connection/connectionOptions.ts';
import { countWrites } from '#store/connection/countWrites.ts';
import { connectStore, type Store } from '#store/connection/connectStore.ts';

const ports = z.object({
  dataPort: z.number(),
  panelPort: z.number(),
  /** The page of the stand-in, where one is served. */
  pagePort: z.number().optional(),
});

const environmentSchema = z.object({
  FEATHER_DATABASE_URL: z.string().refine(isStoreUrl, 'FEATHER_DATABASE_URL must be mysql://...'),
  FEATHER_PORT: z.coerce.number().int().optional(),
  FEATHER_STAND_INS: z
    .string()
    .default('null')
    .transform((text) => JSON.parse(text) as unknown)
    .pipe(
      z
        .object({
          desk: ports,
          roll: ports,
          flat: ports.optional(),
          printer: z.object({ port: z.number() }).optional(),
        })
        .nullable(),
    ),
  /** `demo`: whoever reaches it is the owner of the demo. */
  FEATHER_SIGN_IN: z.enum(['people', 'demo']).default('people'),
  FEATHER_LOG_LEVEL: z.enum(['debug', 'info', 'warn', 'error', 'silent']).default('info'),
});

/** What the server needs to answer: the store, the log, where the stand-ins listen, and which ports are its own. */
export interface ServerContext {
  readonly store: Store;
  readonly log: pino.Logger;
  readonly standIns: z.infer<typeof environmentSchema>['FEATHER_STAND_INS'];
  readonly ownPorts: readonly OwnPort[];
  /** Whether whoever reaches it is signed in as the owner of the demo. */
  readonly isOpenDemo: boolean;
  /** Which runs it drives, among several servers; `null` where it is known to be alone. */
  readonly leases: Leases | null;
  /** Where it listens beside loopback. */
  readonly network: NetworkSettings;
  /** Tells the pages of this process what was changed, here or at another server. */
  readonly feed: ChangeFeed;
  /** How much this process has written. */
  readonly countWrites: () => number;
  /** Tells from now on that something was written. */
  readonly onWrite: (listener: () => void) => void;
}

/** No answer is worth a longer statement. */
const STATEMENT_SECONDS = 20;

/** A context from the environment. @throws ZodError when it is not set up */
export function makeContext(environment: NodeJS.ProcessEnv): ServerContext {
  const read = environmentSchema.parse(environment);
  const listeners: (() => void)[] = [];
  const store = connectStore(read.FEATHER_DATABASE_URL, {
    statementSeconds: STATEMENT_SECONDS,
    isWatched: true,
  });
  const count = countWrites(store, () => {
    for (const tell of listeners) tell();
  });
  const log = pino({
    level: read.FEATHER_LOG_LEVEL,
    base: null,
    serializers: { err: describeError, error: describeError },
  });
  return {
    store,
    log,
    leases: new Leases(store, log, { sightOf, onLost: dropLive }),
    feed: new ChangeFeed(store, log),
    countWrites: count,
    onWrite: (listener) => void listeners.push(listener),
    network: readNetworkSettings(environment),
    isOpenDemo: read.FEATHER_SIGN_IN === 'demo',
    standIns: read.FEATHER_STAND_INS,
    ownPorts: ownPortsOf(read.FEATHER_DATABASE_URL, read.FEATHER_PORT),
  };
}

/** An error for the log: what the database says of a value that somebody typed is left out. */
function describeError(error: unknown): unknown {
  if (!(error instanceof Error)) return error;
  const { name, stack } = error;
  if (!('sqlMessage' in error)) return { name, message: error.message, stack };
  const { code, errno } = error as Error & { readonly code?: unknown; readonly errno?: unknown };
  const [, ...places] = (stack ?? '').split(/\n(?= {4}at )/);
  return { name, code, errno, places };
}

/** Where the application itself listens. */
export function ownPortsOf(databaseUrl: string, port: number | undefined): readonly OwnPort[] {
  return [
    ...listStoreHosts(databaseUrl).map((host) => ({ ...host, words: 'the application’s own database' })),
    ...(port === undefined ? [] : [{ host: '127.0.0.1', port, words: 'the application itself' }]),
  ];
}
