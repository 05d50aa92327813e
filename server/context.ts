import pino from 'pino';
import { z } from 'zod';
import { connectStore, type Store } from '#store/connection/connectStore.ts';
import { resumeRuns } from '#server/runs/runDriver.ts';

const ports = z.object({
  dataPort: z.number(),
  panelPort: z.number(),
  /** The page of the stand-in, where one is served. */
  pagePort: z.number().optional(),
});

const environmentSchema = z.object({
  FEATHER_DATABASE_URL: z.url({ protocol: /^mysql$/, error: 'FEATHER_DATABASE_URL must be mysql://...' }),
  FEATHER_STAND_INS: z
    .string()
    .default('null')
    .transform((text) => JSON.parse(text) as unknown)
    .pipe(
      z.object({ desk: ports, roll: ports, printer: z.object({ port: z.number() }).optional() }).nullable(),
    ),
  FEATHER_LOG_LEVEL: z.enum(['debug', 'info', 'warn', 'error', 'silent']).default('info'),
});

/** What the server needs to answer: the store, the log and where the stand-ins listen. */
export interface ServerContext {
  readonly store: Store;
  readonly log: pino.Logger;
  readonly standIns: z.infer<typeof environmentSchema>['FEATHER_STAND_INS'];
}

let context: ServerContext | null = null;

/** The one context of this process, made on first use. @throws when the environment is not set up */
export function serverContext(): ServerContext {
  context ??= makeContext();
  return context;
}

function makeContext(): ServerContext {
  const environment = environmentSchema.parse(process.env);
  const log = pino({ level: environment.FEATHER_LOG_LEVEL, base: null });
  const store = connectStore(environment.FEATHER_DATABASE_URL);
  const made = { store, log, standIns: environment.FEATHER_STAND_INS };
  resumeRuns(made).then(
    (count) => count > 0 && log.warn({ count }, 'runs were going when the server stopped; taken up again'),
    (error: unknown) => log.error({ error }, 'could not look for unfinished runs'),
  );
  return made;
}
