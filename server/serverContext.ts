import { makeContext, type ServerContext } from '#server/context/context.ts';
import { forgetKeys } from '#store/repositories/workshop/requestKeys.ts';
import { forgetPictures } from '#store/repositories/jobs/pictures.ts';
import { answerOrders } from '#server/several/answerOrders.ts';
import { resumeRuns } from '#server/runs/runLoop.ts';

let context: ServerContext | null = null;

/** The one context of this process, made on first use; runs that were going are taken up. @throws when the environment is not set up */
export function serverContext(): ServerContext {
  context ??= start();
  return context;
}

/** A run that nobody drives any more, because the store was away for too long, is taken up so soon after it is back. */
const LOOK_EVERY_MS = 2_000;

const FORGET_EVERY_MS = 3_600_000;

function start(): ServerContext {
  const made = makeContext(process.env);
  const look = () =>
    resumeRuns(made).then(
      (count) => count > 0 && made.log.warn({ count }, 'runs that nobody drove are taken up'),
      (error: unknown) => made.log.error({ error }, 'could not look for unfinished runs'),
    );
  void look();
  setInterval(() => void look(), LOOK_EVERY_MS).unref();
  answerOrders(made);
  const forget = () =>
    Promise.all([forgetKeys(made.store, new Date()), forgetPictures(made.store, new Date())]).catch(() => 0);
  setInterval(() => void forget(), FORGET_EVERY_MS).unref();
  return made;
}
