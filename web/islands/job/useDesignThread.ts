import { useEffect, useMemo, useRef } from 'react';
import type { BorderQuestion, DesignFile, DesignOrder, DesignReport } from '#web/workers/designJob.ts';

/** The thread that reads, lays out and checks the drawings of a job. */
export interface DesignThread {
  /** Hands over the files that it does not know yet, by their numbers. */
  readonly tell: (sources: ReadonlyMap<number, string>) => void;
  readonly ask: (question: DesignOrder | BorderQuestion) => void;
  readonly end: () => void;
}

/** A thread of its own; a new one for every attempt. */
export function useDesignThread(attempt: number, onReport: (report: DesignReport) => void): DesignThread {
  const worker = useRef<Worker | null>(null);
  /** The files that it knows. */
  const told = useRef(new Set<number>());
  const report = useRef(onReport);
  report.current = onReport;
  useEffect(() => {
    const thread = new Worker(new URL('../../workers/designJob.ts', import.meta.url), { type: 'module' });
    thread.onmessage = ({ data }: MessageEvent<DesignReport>) => report.current(data);
    worker.current = thread;
    told.current = new Set();
    return () => thread.terminate();
  }, [attempt]);
  return useMemo(
    () => ({
      tell: (sources) => {
        for (const [number, source] of sources) {
          if (told.current.has(number)) continue;
          told.current.add(number);
          worker.current?.postMessage({ kind: 'file', number, source } satisfies DesignFile);
        }
      },
      ask: (question) => worker.current?.postMessage(question),
      end: () => worker.current?.terminate(),
    }),
    [],
  );
}
