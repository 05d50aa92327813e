import type { LiveEvent } from '#core/run/liveEvent.ts';

type Listener = (event: LiveEvent) => void;

const listeners = new Map<number, Set<Listener>>();

/** Tells everyone who watches a run. */
export function publishRunEvent(runId: number, event: LiveEvent): void {
  for (const listener of listeners.get(runId) ?? []) listener(event);
}

/** Watches a run; call what is returned to stop. */
export function watchRun(runId: number, listener: Listener): () => void {
  const watching = listeners.get(runId) ?? new Set();
  watching.add(listener);
  listeners.set(runId, watching);
  return () => {
    watching.delete(listener);
    if (watching.size === 0) listeners.delete(runId);
  };
}
