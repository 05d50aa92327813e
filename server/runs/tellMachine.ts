import { AppError } from '#core/errors/appError.ts';
import type { RunCommand } from '#core/run/runCourse.ts';
import type { Hands, Link } from '#server/links/link.ts';
import { askMachine } from '#server/runs/askMachine.ts';
import { findLive, leaveLive, type Live } from '#server/runs/live.ts';
import type { Scene } from '#server/runs/scene.ts';

const AGAIN_MS = 100;

/** Gives a machine an order and tells the run whether it was taken. */
export async function tellMachine(
  scene: Scene,
  { order, key }: Extract<RunCommand, { kind: 'tell' }>,
  link: Link,
): Promise<void> {
  if (order === 'stop') return tellStop(scene, key, link);
  const isTaken = link.hands
    ? await orderHands(link.hands, order)
    : ((await findLive(scene.runId)?.tell(order)) ?? false);
  if (isTaken) await scene.tell({ kind: order === 'pause' ? 'paused' : 'resumed', key });
}

/**
 * Stops a machine: nothing more is sent, it is told in its own language where that has a word for it, and at its panel
 * where there are hands; then it is asked what it had done. Where neither reaches it, a person must.
 */
async function tellStop(scene: Scene, key: string, link: Link): Promise<void> {
  const live = findLive(scene.runId);
  try {
    await stopLive(scene, key, link, live?.key === key ? live : null);
  } finally {
    if (live) leaveLive(scene.runId, live);
  }
}

async function stopLive(scene: Scene, key: string, { hands }: Link, live: Live | null): Promise<void> {
  live?.halt();
  const isTold = (await live?.tell('stop')) ?? false;
  if (hands) {
    // The machine may be just about to begin: it is told until it has been seen standing still.
    if (!(await orderHands(hands, 'stop'))) {
      await scene.tell({ kind: 'stopRefused', key, outTo: null });
      return;
    }
    await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    return askMachine(scene, { kind: 'ask', key, isLater: false }, { hands });
  }
  if (isTold || live?.hasBegun() === false) {
    await scene.tell({ kind: 'stopTaken', key });
    return;
  }
  const outTo = live?.outTo() ?? scene.course().parts[scene.course().partIndex]?.to ?? 0;
  await scene.tell({ kind: 'stopRefused', key, outTo });
}

async function orderHands(hands: Hands, order: 'stop' | 'pause' | 'resume'): Promise<boolean> {
  try {
    await hands.order({ order });
    return true;
  } catch (error) {
    if (error instanceof AppError) return false;
    throw error;
  }
}
