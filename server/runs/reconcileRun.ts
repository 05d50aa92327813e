import { AppError } from '#core/errors/appError.ts';
import type { Run } from '#core/run/run.ts';
import type { RunProgress } from '#store/repositories/runProgress.ts';
import { askCutter, type CutterMemory } from '#server/links/askCutter.ts';
import { enterState, haltAfterStop, type Drive, type Halt } from '#server/runs/runState.ts';
import { recordStroke } from '#server/runs/transmitPart.ts';

const ASK_EVERY_MS = 250;
/** A cutter that does not answer for so long is given up on: a person looks. */
const PATIENCE_MS = 10 * 60_000;

/**
 * After a broken link or a restart: asks the cutter what it did of the last transmission, waits while it still works on
 * it, and writes everything down.
 *
 * @returns `null` when the open strokes were certainly not begun and may be sent; otherwise why the run stands still
 */
export async function reconcileRun(
  drive: Drive,
  run: Run,
  { sentKey, bootId }: RunProgress,
): Promise<Halt | null> {
  if (drive.address.panelPort === null) {
    return {
      kind: 'held',
      message:
        'The server stopped while this machine was cutting, and it does not say how far it got: look at the sheet.',
    };
  }
  const first = Number(sentKey?.split('/')[2]);
  const begun = Date.now();
  let isLost = false;
  for (;;) {
    const memory = await tryToAsk(drive);
    if (memory === null) {
      if (drive.isStopped) return { kind: 'stopped', message: 'Stopped by hand while the link was down.' };
      if (Date.now() - begun > PATIENCE_MS)
        return { kind: 'held', message: 'The cutter does not answer any more.' };
      if (!isLost)
        await enterState(drive.context, drive.runId, 'cutting', 'No link to the cutter. Trying again …');
      isLost = true;
      await pause();
      continue;
    }
    if (memory.bootId !== bootId) return heldByPower(run);
    const { job } = memory;
    // The same cutter, but it was never loaded for this: nothing of it was begun.
    if (!job || job.key !== sentKey) return null;
    for (const { index, spans } of job.reached) await recordStroke(drive, index + first, spans);
    const halt = judge(job, drive);
    if (halt !== 'wait') return halt;
    await pause();
  }
}

function judge(job: NonNullable<CutterMemory['job']>, drive: Drive): Halt | null | 'wait' {
  switch (job.state) {
    case 'working':
    case 'paused':
      return 'wait';
    case 'stopped':
      return haltAfterStop(drive, job.reason);
    case 'loaded':
    case 'broken':
    case 'finished':
      return null;
  }
}

function heldByPower(run: Run): Halt {
  const next = run.outcomes.length + 1;
  return {
    kind: 'held',
    message: `The cutter was switched off meanwhile. The strokes shown as cut were reported; stroke ${next} may be cut whole, in part or not at all: look at the sheet.`,
  };
}

async function tryToAsk({ address }: Drive): Promise<CutterMemory | null> {
  try {
    return await askCutter(address);
  } catch (error) {
    if (error instanceof AppError && error.code === 'deviceUnreachable') return null;
    throw error;
  }
}

function pause(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ASK_EVERY_MS));
}
