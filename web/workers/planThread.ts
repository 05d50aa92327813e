import { parentPort } from 'node:worker_threads';
import { AppError } from '#core/errors/appError.ts';
import { planPasses, type PlanOrder } from '#core/passes/planPasses.ts';

/** Plans jobs one after the other, so that the server goes on driving machines and answering meanwhile. */
parentPort?.on('message', ({ id, order }: { readonly id: number; readonly order: PlanOrder }) => {
  try {
    parentPort?.postMessage({ id, plan: planPasses(order) });
  } catch (error) {
    const { message } = error instanceof Error ? error : new Error(String(error));
    const refusal = error instanceof AppError ? { code: error.code, details: error.details } : null;
    parentPort?.postMessage({ id, message, refusal });
  }
});
