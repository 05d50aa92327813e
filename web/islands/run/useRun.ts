import { useCallback, useEffect, useRef, useState } from 'react';
import { isRunOver, type Run } from '#core/run/run.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { useTopic } from '#web/islands/together/useTopic.ts';
import type { LiveEvent } from '#core/run/liveEvent.ts';
import { runEventSchema } from '#web/schemas/run.ts';

type StateEvent = Extract<LiveEvent, { kind: 'state' }>;

interface Head {
  readonly x: number;
  readonly y: number;
}

/** A run kept up to date by the server's events. After a lost link it is read anew, so nothing is missed. */
export function useRun(initial: Run) {
  const [run, setRun] = useState(initial);
  const [head, setHead] = useState<Head | null>(null);
  const [error, setError] = useState<unknown>(null);
  const [isLinked, setLinked] = useState(true);
  const isOver = isRunOver(run.state);

  const told = useRef<StateEvent | null>(null);

  const take = useCallback((event: LiveEvent) => {
    if (event.kind === 'state') told.current = event;
    if (event.kind === 'position') setHead({ x: event.x, y: event.y });
    else setRun((before) => applyEvent(before, event));
  }, []);

  /** What was read may be older than what was told while it was on its way: what was told stands. */
  const readAnew = useCallback(async () => {
    try {
      const fresh = await callApi<Run>(`/api/runs/${initial.id}`);
      const later = told.current;
      setRun((before) => {
        const merged = { ...fresh, outcomes: mergeOutcomes(before.outcomes, fresh.outcomes) };
        return later ? applyEvent(merged, later) : merged;
      });
    } catch (problem) {
      setError(problem);
    }
  }, [initial.id]);

  useEffect(() => {
    if (isOver) return;
    const source = new EventSource(`/api/runs/${initial.id}/events`);
    source.onopen = () => {
      setLinked(true);
      told.current = null;
      void readAnew();
    };
    source.onerror = () => setLinked(false);
    source.onmessage = (message: MessageEvent<string>) => {
      const event = runEventSchema.parse(JSON.parse(message.data));
      take(event);
      // Held, it knows which strokes went out.
      if (event.kind === 'state' && event.state === 'held') void readAnew();
    };
    return () => source.close();
  }, [initial.id, isOver, take, readAnew]);

  // Pieces noted and lines looked at are told of with everything else that others change.
  const together = useTopic(`runs/${initial.id}`, () => void readAnew());

  const order = (what: 'stop' | 'continue' | 'pause' | 'repeat' | 'unload', body: object) => {
    setError(null);
    callApi(`/api/runs/${initial.id}/${what}`, 'POST', body).then(() => {
      // A repeat brings strokes of its own.
      if (what === 'repeat') void readAnew();
    }, setError);
  };
  return {
    run,
    head,
    error,
    isLinked,
    together,
    settle: setRun,
    order,
  };
}

export type LiveRun = ReturnType<typeof useRun>;

function applyEvent(run: Run, event: Exclude<LiveEvent, { kind: 'position' }>): Run {
  if (event.kind === 'state') return { ...run, state: event.state, message: event.message };
  if (event.kind === 'out') return { ...run, outTo: event.to };
  return { ...run, outcomes: mergeOutcomes(run.outcomes, [{ index: event.index, spans: event.spans }]) };
}

/** Both lists, each stroke once. */
function mergeOutcomes(known: Run['outcomes'], fresh: Run['outcomes']): Run['outcomes'] {
  const all = new Map([...known, ...fresh].map((outcome) => [outcome.index, outcome]));
  return [...all.values()].sort((a, b) => a.index - b.index);
}
