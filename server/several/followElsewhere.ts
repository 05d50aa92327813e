import { isRunOver, type RunState } from '#core/run/run.ts';
import type { ServerContext } from '#server/context/context.ts';
import { isDriven } from '#server/runs/runLoop.ts';
import { publishRunEvent } from '#server/runs/runHub.ts';
import { findSight } from '#store/repositories/several/runLeases.ts';
import { findRunHead, listStrokesBut } from '#store/repositories/runs/runs.ts';

/** So often a run that another server drives is looked at, while somebody watches it here, ms. */
const LOOK_MS = 400;

interface Following {
  watchers: number;
  readonly timer: NodeJS.Timeout;
}

const followed = new Map<number, Following>();

/**
 * Tells those who watch a run at this server what another server does with it. What this server does itself is told by
 * its own loop.
 *
 * @returns what ends it
 */
export function followElsewhere(context: ServerContext, runId: number): () => void {
  const one = followed.get(runId) ?? { watchers: 0, timer: begin(context, runId) };
  one.watchers += 1;
  followed.set(runId, one);
  let isEnded = false;
  return () => {
    if (isEnded) return;
    isEnded = true;
    one.watchers -= 1;
    if (one.watchers > 0) return;
    clearInterval(one.timer);
    followed.delete(runId);
  };
}

function begin(context: ServerContext, runId: number): NodeJS.Timeout {
  const { store, log } = context;
  let known: { readonly state: RunState; readonly message: string } | null = null;
  const strokes = new Set<number>();
  let isLooking = false;
  const look = async () => {
    if (isLooking || (known && isRunOver(known.state))) return;
    if (context.leases?.isAlone !== false || isDriven(runId)) {
      known = null;
      return;
    }
    isLooking = true;
    try {
      const head = await findRunHead(store, runId);
      const fresh = await listStrokesBut(store, runId, strokes);
      const isFirst = known === null;
      for (const stroke of fresh) {
        strokes.add(stroke.index);
        // The first look finds what whoever watches has read already, or what was missed between two drivers.
        publishRunEvent(runId, { kind: 'stroke', ...stroke });
      }
      const sight = await findSight(store, runId);
      if (sight?.head) publishRunEvent(runId, { kind: 'position', ...sight.head });
      if (sight && sight.outTo !== null) publishRunEvent(runId, { kind: 'out', to: sight.outTo });
      if (isFirst || known?.state !== head.state || known.message !== head.message) {
        publishRunEvent(runId, { kind: 'state', ...head });
      }
      known = head;
    } catch (error) {
      log.warn({ err: error, runId }, 'a run that another server drives cannot be read');
    } finally {
      isLooking = false;
    }
  };
  return setInterval(() => void look(), LOOK_MS).unref();
}
