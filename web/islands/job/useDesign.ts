import { useCallback, useEffect, useRef, useState } from 'react';
import type { CheckFacts, Trouble } from '#core/checks/trouble.ts';
import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import type { ShownLayout } from '#core/job/describeLayout.ts';
import type { Machine } from '#core/station/machine.ts';
import type { KeptRule } from '#store/repositories/jobs/roleRules.ts';
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
  /** True while the layout shown is that of an older state of the job. */
  readonly isBehind: boolean;
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
  const source = useSource(job.id, setProblem, setRules);
  const [attempt, setAttempt] = useState(0);
  const worker = useRef<Worker | null>(null);
  const newest = useRef(0);
  const asked = useRef<JobReply | null>(null);
  const [laidJob, setLaidJob] = useState<JobReply | null>(null);
  useEffect(() => {
    const thread = new Worker(new URL('../../workers/designJob.ts', import.meta.url), { type: 'module' });
    thread.onmessage = ({ data }: MessageEvent<DesignReport>) => {
      if (data.id !== newest.current) return;
      if (data.kind === 'progress') return setProgress(data.share >= 1 ? null : data);
      if (data.kind === 'layout') {
        setLayout(data.layout);
        setLaidJob(asked.current);
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
    if (source === null) return;
    newest.current += 1;
    asked.current = job;
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
  const isBehind = laidJob !== job;
  return { layout, troubles, progress, problem, isBehind, rules, setRules, stop, retry };
}

/** The drawing and the workshop's rules, fetched once. */
function useSource(
  jobId: number,
  onProblem: (problem: string) => void,
  onRules: (rules: readonly KeptRule[]) => void,
): string | null {
  const [source, setSource] = useState<string | null>(null);
  useEffect(() => {
    void readSource(jobId).then(setSource, (error: unknown) => onProblem(String(error)));
    void callApi<readonly KeptRule[]>('/api/role-rules').then(onRules, () => onRules([]));
  }, [jobId, onProblem, onRules]);
  return source;
}

async function readSource(id: number): Promise<string> {
  const reply = await fetch(`/api/jobs/${id}/source`);
  if (!reply.ok) throw new Error('The drawing could not be fetched. Load the page again.');
  return reply.text();
}
