import { makeContext, type ServerContext } from '#server/context/context.ts';
import { resumeRuns } from '#server/runs/runLoop.ts';

let context: ServerContext | null = null;

/** The one context of this process, made on first use; runs that were going are taken up. @throws when the environment is not set up */
export function serverContext(): ServerContext {
  context ??= start();
  return context;
}

function start(): ServerContext {
  const made = makeContext(process.env);
  resumeRuns(made).then(
    (count) =>
      count > 0 && made.log.warn({ count }, 'runs were going when the server stopped; taken up again'),
    (error: unknown) => made.log.error({ error }, 'could not look for unfinished runs'),
  );
  return made;
}
