import { AppError } from '#core/errors/appError.ts';
import type { ServerContext } from '#server/context/context.ts';
import { findLive } from '#server/runs/live.ts';
import { performHere, runOrderSchema, type OrderAnswer, type RunOrder } from '#server/several/runOrder.ts';
import { answerOrder, listOrders } from '#store/repositories/several/runOrders.ts';

/** A stop must not wait longer than a hand takes to reach the panel, ms. */
const LOOK_MS = 120;

/** Takes up, from now on, what other servers ask of the runs that this one drives. */
export function answerOrders(context: ServerContext): void {
  const { leases, store, log } = context;
  if (!leases) return;
  const under = new Set<string>();
  let isLooking = false;
  const look = async () => {
    const runs = leases.runs();
    if (isLooking || runs.length === 0) return;
    isLooking = true;
    try {
      for (const { id, runId, wanted, author } of await listOrders(store, runs)) {
        if (under.has(id)) continue;
        under.add(id);
        const order = { runId, author, wanted: runOrderSchema.parse(wanted) };
        // Not waited for: a stop passes a pause that takes its time.
        void answer(context, id, order).finally(() => under.delete(id));
      }
    } catch (error) {
      log.warn({ err: error }, 'orders of other servers were not read');
    } finally {
      isLooking = false;
    }
  };
  setInterval(() => void look(), LOOK_MS).unref();
}

async function answer(context: ServerContext, id: string, order: RunOrder): Promise<void> {
  const { leases, store, log } = context;
  if (!(await leases?.take(order.runId))) return;
  try {
    if (order.wanted.kind === 'stop') findLive(order.runId)?.halt();
    const said: OrderAnswer = await performHere(order, context).then(
      (state) => ({ state }),
      (error: unknown) => describe(error),
    );
    await answerOrder(store, id, said);
  } catch (error) {
    log.warn({ err: error, runId: order.runId }, 'an order of another server was not answered');
  } finally {
    leases?.leave(order.runId);
  }
}

function describe(error: unknown): OrderAnswer {
  if (error instanceof AppError) return { code: error.code, message: error.message };
  return { code: 'unforeseen', message: 'The server that drives this run failed.' };
}
