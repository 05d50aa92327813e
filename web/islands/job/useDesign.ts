import { useCallback, useEffect, useRef, useState } from 'react';
import type { CheckFacts, Trouble } from '#core/checks/trouble.ts';
import type { RoleFacts } from '#core/drawing/guessRoles.ts';
import type { ShownLayout } from '#core/job/describeLayout.ts';
import type { Machine } from '#core/station/machine.ts';
import type { KeptRule } from '#store/repositories/roleRules.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { JobReply } from '#web/schemas/job.ts';
import type { DesignOrder, DesignReport } from '#web/workers/designJob.ts';

/** What is known of a job's drawing on this screen. */
export interface Design {
  readonly layout: ShownLayout | null;
  readonly troubles: readonly Trouble[] | null;
  /** What the thread is at, or `null` when it rests. */
  readonly progress: { readonly words: string; readonly share: number } | null;
  readonly problem: string | null;
  readonly rules: readonly KeptRule[];
  readonly setRules: (rules: readonly KeptRule[]) => void;
  readonly stop: () => void;
  readonly retry: () => void;
}

/** Reads, lays out and checks the drawing of a job in a thread of its own. The newest question wins. */
export function useDesign(
  job: JobReply,
  machine: Machine,
  facts: RoleFacts,
  checks: Omit<CheckFacts, 'spacingMm'>,
): Design {
  const [layout, setLayout] = useState<ShownLayout | null>(null);
  const [troubles, setTroubles] = useState<readonly Trouble[] | null>(null);
  const [progress, setProgress] = useState<Design['progress']>({ words: 'Fetching the drawing', share: 0 });
  const [problem, setProblem] = useState<string | null>(null);
  const [rules, setRules] = useState<readonly KeptRule[]>([]);
  const [source, setSource] = useState<string | null>(null);
  const [attempt, setAttempt] = useState(0);
  const worker = useRef<Worker | null>(null);
  const newest = useRef(0);
  useEffect(() => {
    const thread = new Worker(new URL('../../workers/designJob.ts', import.meta.url), { type: 'module' });
    thread.onmessage = ({ data }: MessageEvent<DesignReport>) => {
      if (data.id !== newest.current) return;
      if (data.kind === 'progress') return setProgress(data.share >= 1 ? null : data);
      if (data.kind === 'layout') {
        setLayout(data.layout);
        return setProgress({ words: 'Checking the lines', share: 0 });
      }
      if (data.kind === 'troubles') setTroubles(data.troubles);
      else setProblem(data.message);
      setProgress(null);
    };
    worker.current = thread;
    return () => thread.terminate();
  }, [attempt]);
  useEffect(() => {
    void loadSource(job.id).then(setSource, (error: unknown) => setProblem(String(error)));
    void callApi<readonly KeptRule[]>('/api/role-rules').then(setRules, () => setRules([]));
  }, [job.id]);
  useEffect(() => {
    if (source === null) return;
    newest.current += 1;
    const order: DesignOrder = {
      id: newest.current,
      design: { ...job, source },
      machine: { marks: machine.marks, printAndCut: machine.printAndCut },
      facts,
      rules,
      checks: { ...checks, spacingMm: job.layout.spacingMm },
    };
    worker.current?.postMessage(order);
    // The facts belong to the page and never change while it is open.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [source, job, rules, attempt]);
  const stop = useCallback(() => {
    worker.current?.terminate();
    setProgress(null);
    setProblem('Stopped. The drawing is kept; go on whenever you like.');
  }, []);
  const retry = useCallback(() => {
    setProblem(null);
    setAttempt((count) => count + 1);
  }, []);
  return { layout, troubles, progress, problem, rules, setRules, stop, retry };
}

async function loadSource(id: number): Promise<string> {
  const reply = await fetch(`/api/jobs/${id}/source`);
  if (!reply.ok) throw new Error('The drawing could not be fetched. Load the page again.');
  return reply.text();
}
