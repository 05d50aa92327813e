import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { AppError } from '#core/errors/appError.ts';
import type { RunState } from '#core/run/run.ts';
import type { ServerContext } from '#server/context/context.ts';
import { performHere, readAnswer, type RunOrder } from '#server/several/runOrder.ts';
import { addOrder, answerOrder, findAnswer, ORDER_S } from '#store/repositories/several/runOrders.ts';

const LOOK_MS = 60;

/**
 * Has an order carried out by the server that drives the run: by this one, where nobody else does; else it is passed on
 * through the store, and should the other die with it, done here.
 *
 * @returns the state it led to
 * @throws AppError as the run refuses it; `busy` when whoever drives the run did not take it up
 */
export async function atDriver(context: ServerContext, order: RunOrder): Promise<RunState> {
  const { leases, store } = context;
  const { runId } = order;
  if (!leases) return performHere(order, context);
  const here = async () => {
    try {
      return await performHere(order, context);
    } finally {
      leases.leave(runId);
    }
  };
  if (await leases.take(runId)) return here();
  const id = randomUUID();
  await addOrder(store, { id, ...order });
  for (const begun = performance.now(); performance.now() - begun < 1000 * ORDER_S;) {
    await pause(LOOK_MS);
    const answer = await findAnswer(store, id);
    if (answer !== null) return readAnswer(answer);
    if (!(await leases.take(runId))) continue;
    // It is taken back, so that nobody does it a second time; who was quicker has done it.
    if (await answerOrder(store, id, { code: 'busy', message: 'taken back' })) return here();
    leases.leave(runId);
  }
  if (await answerOrder(store, id, { code: 'busy', message: 'taken back' })) {
    throw new AppError('busy', 'The server that drives this run did not take the order up. Try again.');
  }
  return readAnswer(await findAnswer(store, id));
}
