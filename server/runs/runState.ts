import type { RunState } from '#core/run/run.ts';
import { endRun } from '#store/repositories/runProgress.ts';
import { setRunState } from '#store/repositories/runs.ts';
import type { ServerContext } from '#server/context.ts';
import type { CutterAddress } from '#server/links/cutterLink.ts';
import { publishRunEvent } from '#server/runs/runHub.ts';

/** Why a run does not go on by itself. */
export type Halt =
  | { readonly kind: 'held'; readonly message: string }
  | { readonly kind: 'stopped'; readonly message: string };

/** A stop that a person ordered. */
export const STOPPED_BY_HAND: Halt = { kind: 'stopped', message: 'Stopped by hand.' };

/** A run that this server drives. */
export interface Drive {
  readonly runId: number;
  readonly address: CutterAddress;
  readonly context: ServerContext;
  isStopped: boolean;
}

/** Enters a state that is not the end, for everyone who watches. */
export async function enterState(
  { store }: ServerContext,
  runId: number,
  state: RunState,
  message: string,
): Promise<void> {
  await setRunState(store, runId, state, message, null);
  publishRunEvent(runId, { kind: 'state', state, message });
}

/** Why a run stands still whose cutter stopped: ordered, or for a reason of the cutter's. */
export function haltAfterStop({ isStopped }: Drive, reason: string): Halt {
  if (isStopped) return STOPPED_BY_HAND;
  return { kind: 'held', message: `The cutter stopped: ${reason}. The sheet is still in.` };
}

/** Ends a run, once. */
export async function finishRun(
  { store }: ServerContext,
  runId: number,
  state: RunState,
  message: string,
): Promise<void> {
  if (await endRun(store, runId, state, message, new Date()))
    publishRunEvent(runId, { kind: 'state', state, message });
}
