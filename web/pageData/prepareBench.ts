import type { ServerContext } from '#server/context/context.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { readBenchAnswers } from '#web/pageData/readBenchAnswers.ts';

/** Writings come in handfuls: answers are made when none has come for this long, ms. */
const QUIET_MS = 1_000;

/**
 * Has the answers of every station worked out when something was written that may change them, so that they are there
 * when somebody looks. Answers follow from what they are asked with: what did not change costs nothing.
 */
export function prepareBench(context: ServerContext): void {
  let timer: NodeJS.Timeout | null = null;
  let isBusy = false;
  const prepare = async () => {
    if (isBusy) return later();
    isBusy = true;
    try {
      for (const { id } of await listMachines(context.store)) {
        await readBenchAnswers(context.store, await findStation(context.store, id));
      }
    } catch (error) {
      // Whoever looks has them made then, and is told what is wrong.
      context.log.debug({ error }, 'answers could not be prepared');
    } finally {
      isBusy = false;
    }
  };
  const later = () => {
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => void prepare(), QUIET_MS).unref();
  };
  context.onWrite(later);
  later();
}
