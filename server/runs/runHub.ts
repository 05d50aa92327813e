import type { LiveEvent } from '#core/run/liveEvent.ts';
import type { RunSight } from '#store/repositories/several/runLeases.ts';

type Listener = (event: LiveEvent) => void;

const listeners = new Map<number, Set<Listener>>();

/** Where the heads of runs are and what has gone out, as it was told last. */
const sights = new Map<number, RunSight>();
const NOTHING_SEEN: RunSight = { head: null, outTo: null };

/** What was seen of a run last. */
export function sightOf(runId: number): RunSight {
  return sights.get(runId) ?? NOTHING_SEEN;
}

export function forgetSight(runId: number): void {
  sights.delete(runId);
}

/** Tells everyone who watches a run. */
export function publishRunEvent(runId: number, event: LiveEvent): void {
  if (event.kind === 'position') {
    const { x, y, stroke } = event;
    sights.set(runId, { ...sightOf(runId), head: { x, y, stroke } });
  } else if (event.kind === 'out') {
    sights.set(runId, { ...sightOf(runId), outTo: event.to });
  }
  for (const listener of listeners.get(runId) ?? []) listener(event);
}

/** Watches a run; call what is returned to stop. */
export function watchRun(runId: number, listener: Listener): () => void {
  const watching = listeners.get(runId) ?? new Set();
  watching.add(listener);
  listeners.set(runId, watching);
  return () => {
    watching.delete(listener);
    if (watching.size > 0) return;
    listeners.delete(runId);
  };
}
