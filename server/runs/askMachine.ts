import { setTimeout as pause } from 'node:timers/promises';
import { AppError } from '#core/errors/appError.ts';
import type { MachineMemory, RunCommand } from '#core/run/runCourse.ts';
import { firstStrokeOf } from '#core/run/transmissionKey.ts';
import type { Hands, Link } from '#server/links/link.ts';
import type { Scene } from '#server/runs/scene.ts';

const ASK_EVERY_MS = 250;
/** A machine that does not answer for so long is given up on: a person looks. */
const PATIENCE_MS = 10 * 60_000;
/** Who ordered a stop is told sooner. */
const STOP_PATIENCE_MS = 3_000;

/**
 * Asks a machine what it did of the last transmission, again and again until it answers. A machine without a memory
 * cannot be asked.
 */
export async function askMachine(
  scene: Scene,
  { key, isLater }: Extract<RunCommand, { kind: 'ask' }>,
  { hands }: Pick<Link, 'hands'>,
): Promise<void> {
  if (!hands) {
    const outTo = scene.course().parts[scene.course().partIndex]?.to ?? 0;
    const reason =
      'The server stopped while this machine was cutting, and it does not say how far it got: look at the sheet.';
    await scene.tell({ kind: 'linkLost', key, outTo, canAsk: false, reason });
    return;
  }
  if (isLater) await pause(ASK_EVERY_MS);
  const begun = Date.now();
  for (;;) {
    const { state, sending } = scene.course();
    if (sending?.key !== key) return;
    const memory = await tryToAsk(hands);
    if (memory) {
      await scene.tell({ kind: 'remembered', key, memory: memoryOf(memory, key) });
      return;
    }
    const waited = Date.now() - begun;
    if (state === 'stopping' && waited > STOP_PATIENCE_MS) {
      await scene.tell({ kind: 'stopRefused', key, outTo: null });
      return;
    }
    if (waited > PATIENCE_MS) {
      await scene.tell({ kind: 'forgotten', key });
      return;
    }
    await pause(ASK_EVERY_MS);
  }
}

/** Strokes are counted by the machine from the first that was sent. */
function memoryOf(memory: MachineMemory, key: string): MachineMemory {
  const first = firstStrokeOf(key);
  const { job } = memory;
  if (!job) return memory;
  const reached = job.reached.map((stroke) => ({ ...stroke, index: stroke.index + first }));
  return { ...memory, job: { ...job, reached } };
}

async function tryToAsk(hands: Hands): Promise<MachineMemory | null> {
  try {
    return await hands.report();
  } catch (error) {
    if (error instanceof AppError && error.code === 'deviceUnreachable') return null;
    throw error;
  }
}
