import { z } from 'zod';
import { CUT_ROLES } from '#core/drawing/roles/lineRoles.ts';
import { AppError, ERROR_CODES } from '#core/errors/appError.ts';
import { RUN_STATES, type RunState } from '#core/run/run.ts';
import type { ServerContext } from '#server/context/context.ts';
import {
  continueHere,
  pauseHere,
  repeatHere,
  stateHere,
  stopHere,
  unloadHere,
} from '#server/runs/ordersHere.ts';

/** What people may want of a run, as one server passes it on to the one that drives it. */
export const runOrderSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('continue'), open: z.enum(['again', 'leave']) }),
  z.object({ kind: z.literal('stop') }),
  z.object({ kind: z.literal('pause'), isPaused: z.boolean() }),
  z.object({ kind: z.literal('repeat'), operation: z.enum(CUT_ROLES) }),
  z.object({ kind: z.literal('unload') }),
]);

export interface RunOrder {
  readonly runId: number;
  readonly wanted: z.infer<typeof runOrderSchema>;
  readonly author: string;
}

/** What became of an order: the state it led to, or the words of a refusal. */
export const orderAnswerSchema = z.union([
  z.object({ state: z.enum(RUN_STATES) }),
  z.object({ code: z.enum(ERROR_CODES), message: z.string() }),
]);
export type OrderAnswer = z.infer<typeof orderAnswerSchema>;

/** Carries an order out on the server that drives the run. @returns the state it led to @throws AppError */
export async function performHere(
  { runId, wanted, author }: RunOrder,
  context: ServerContext,
): Promise<RunState> {
  switch (wanted.kind) {
    case 'stop':
      return stopHere(runId, context, author);
    case 'continue':
      await continueHere(runId, wanted.open, context, author);
      break;
    case 'pause':
      await pauseHere(runId, wanted.isPaused, context, author);
      break;
    case 'repeat':
      await repeatHere(runId, wanted.operation, context, author);
      break;
    case 'unload':
      await unloadHere(runId, context, author);
      break;
  }
  return stateHere(runId, context);
}

/** The state an answer tells. @throws AppError as it was refused */
export function readAnswer(answer: unknown): RunState {
  const read = orderAnswerSchema.parse(answer);
  if ('state' in read) return read.state;
  throw new AppError(read.code, read.message);
}
