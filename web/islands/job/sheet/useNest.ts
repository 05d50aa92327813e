import { useCallback, useEffect, useRef, useState } from 'react';
import { listTaken } from '#core/job/layOutJob.ts';
import { usualArrangement, type ArrangeOrder } from '#core/sheet/arrangePieces.ts';
import type { NestResult } from '#core/sheet/nest/nestPieces.ts';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import type { JobReply } from '#web/schemas/job.ts';
import type { NestReport } from '#web/workers/nestJob.ts';

/** Laying pieces out in a thread of its own: the best so far is shown while it goes on. */
export interface Nest {
  readonly isRunning: boolean;
  readonly better: NestResult | null;
  readonly start: () => void;
  /** Takes the best so far. */
  readonly take: () => void;
}

/** A result that did not get better for so long is taken, ms. */
const PATIENCE_MS = 4000;

export function useNest(job: JobReply, { layout }: Design, onChange: (change: JobChange) => void): Nest {
  const [better, setBetter] = useState<NestResult | null>(null);
  const [isRunning, setRunning] = useState(false);
  const worker = useRef<Worker | null>(null);
  const best = useRef<NestResult | null>(null);
  const finish = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setRunning(false);
    setBetter(null);
    const placements = best.current?.placements;
    if (!placements) return;
    const arrangement = job.layout.arrangement ?? usualArrangement(layout?.pieces ?? [], job.layout.carrier);
    onChange({ layout: { ...job.layout, arrangement, placements } });
  }, [job, layout, onChange]);
  useEffect(() => () => worker.current?.terminate(), []);
  useEffect(() => {
    if (!isRunning || !better) return;
    const timer = setTimeout(finish, PATIENCE_MS);
    return () => clearTimeout(timer);
  }, [isRunning, better, finish]);
  const start = () => {
    if (!layout) return;
    best.current = null;
    setBetter(null);
    setRunning(true);
    const thread = new Worker(new URL('../../../workers/nestJob.ts', import.meta.url), { type: 'module' });
    thread.onmessage = ({ data }: MessageEvent<NestReport>) => {
      if (!data.better) return finish();
      best.current = data.better;
      setBetter(data.better);
    };
    worker.current = thread;
    const order: ArrangeOrder = {
      pieces: layout.pieces,
      layout: job.layout,
      sheet: job.sheet,
      taken: listTaken(layout, job.sheet),
    };
    thread.postMessage(order);
  };
  return { isRunning, better, start, take: finish };
}
