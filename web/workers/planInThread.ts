import type { Worker } from 'node:worker_threads';
import { AppError } from '#core/errors/appError.ts';
import type { Plan } from '#core/passes/plan.ts';
import { planPasses, type PlanOrder } from '#core/passes/planPasses.ts';
import { startThread } from '#web/workers/startThread.ts';

/** Below so many lines a plan takes a few milliseconds: less than asking a thread. */
const FEW_LINES = 150;

interface Reply {
  readonly id: number;
  readonly plan?: Plan;
  readonly message?: string;
  readonly refusal?: { readonly code: AppError['code']; readonly details: AppError['details'] } | null;
}

interface Waiting {
  readonly resolve: (plan: Plan) => void;
  readonly reject: (error: Error) => void;
}

let thread: Worker | null = null;
let asked = 0;
const waiting = new Map<number, Waiting>();

/**
 * Plans a job in a thread of the server, where it is large enough to be felt.
 *
 * @throws AppError as planPasses does
 */
export function planInThread(order: PlanOrder): Promise<Plan> {
  if (order.lines.length < FEW_LINES) {
    return new Promise((resolve) => resolve(planPasses(order)));
  }
  return new Promise((resolve, reject) => {
    asked += 1;
    waiting.set(asked, { resolve, reject });
    thread ??= openThread();
    thread.postMessage({ id: asked, order });
  });
}

function openThread(): Worker {
  const opened = startThread('web/workers/planThread.ts');
  opened.on('message', ({ id, plan, message = '', refusal }: Reply) => {
    const asker = waiting.get(id);
    waiting.delete(id);
    if (plan) asker?.resolve(plan);
    else asker?.reject(refusal ? new AppError(refusal.code, message, refusal.details) : new Error(message));
  });
  const giveUp = (error: Error) => {
    thread = null;
    for (const { reject } of waiting.values()) reject(error);
    waiting.clear();
  };
  opened.on('error', giveUp);
  opened.on('exit', () => giveUp(new Error('the planning thread ended')));
  // The server may end while the thread rests.
  opened.unref();
  return opened;
}
