import { useCallback, useEffect, useRef, useState } from 'react';
import type { CheckFacts, Trouble } from '#core/checks/trouble.ts';
import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import type { ShownLayout } from '#core/job/describeLayout.ts';
import type { Machine } from '#core/station/machine.ts';
import type { KeptRule } from '#store/repositories/jobs/roleRules.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { JobReply } from '#web/schemas/job.ts';
import type {
  BorderAnswer,
  BorderQuestion,
  DesignFile,
  DesignOrder,
  DesignReport,
} from '#web/workers/designJob.ts';

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
  /** What the border that was asked about last comes to. */
  readonly border: BorderAnswer | null;
  /** Asks what a border would come to; `null` forgets the last. */
  readonly askBorder: (file: BorderQuestion['file'], border: BorderQuestion['border'] | null) => void;
  readonly stop: () => void;
  readonly retry: () => void;
}

/** Reads, lays out and checks the drawing of a job in a thread of its own. The newest question wins. */
export function useDesign(
  job: JobReply,
  machine: Machine,
  facts: RoleFacts,
  checks: Omit<CheckFacts, 'spacingMm'>,
  looked: number,
): Design {
  const [layout, setLayout] = useState<ShownLayout | null>(null);
  const [troubles, setTroubles] = useState<readonly Trouble[] | null>(null);
  const [progress, setProgress] = useState<Design['progress']>({ words: 'Fetching the drawing', share: 0 });
  const [problem, setProblem] = useState<string | null>(null);
  const [rules, setRules] = useState<readonly KeptRule[]>([]);
  const sources = useSources(job, setProblem, setRules);
  const [attempt, setAttempt] = useState(0);
  const worker = useRef<Worker | null>(null);
  /** The files that the thread knows. */
  const told = useRef(new Set<number>());
  const asking = useRef(0);
  const [border, setBorder] = useState<BorderAnswer | null>(null);
  const newest = useRef(0);
  const asked = useRef<JobReply | null>(null);
  const [laidJob, setLaidJob] = useState<JobReply | null>(null);
  useEffect(() => {
    const thread = new Worker(new URL('../../workers/designJob.ts', import.meta.url), { type: 'module' });
    thread.onmessage = ({ data }: MessageEvent<DesignReport>) => {
      if (data.kind === 'border') return data.id === asking.current ? setBorder(data.border) : undefined;
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
    told.current = new Set();
    return () => thread.terminate();
  }, [attempt]);
  useEffect(() => {
    const numbers = [0, ...(job.moreDrawings ?? []).map(({ number }) => number)];
    if (!numbers.every((number) => sources.has(number))) return;
    for (const [number, source] of sources) {
      if (told.current.has(number)) continue;
      told.current.add(number);
      worker.current?.postMessage({ kind: 'file', number, source } satisfies DesignFile);
    }
    newest.current += 1;
    asked.current = job;
    const order: DesignOrder = {
      kind: 'design',
      id: newest.current,
      design: job,
      drawing: looked,
      machine: { marks: machine.marks, printAndCut: machine.printAndCut },
      facts,
      rules,
      checks: { ...checks, spacingMm: job.layout.spacingMm },
    };
    worker.current?.postMessage(order);
    // The facts belong to the page and never change while it is open.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [sources, job, rules, attempt, looked]);
  const askBorder = useCallback<Design['askBorder']>((file, wanted) => {
    asking.current += 1;
    if (!wanted) return setBorder(null);
    const question: BorderQuestion = { kind: 'border', id: asking.current, file, border: wanted };
    worker.current?.postMessage(question);
  }, []);
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
  return {
    layout,
    troubles,
    progress,
    problem,
    isBehind,
    rules,
    setRules,
    border,
    askBorder,
    stop,
    retry,
  };
}

/** The files and the workshop's rules, each fetched once. */
function useSources(
  { id, moreDrawings = [] }: JobReply,
  onProblem: (problem: string) => void,
  onRules: (rules: readonly KeptRule[]) => void,
): ReadonlyMap<number, string> {
  const [sources, setSources] = useState<ReadonlyMap<number, string>>(new Map());
  const asked = useRef(new Set<number>());
  const numbers = [0, ...moreDrawings.map(({ number }) => number)].join();
  useEffect(() => {
    const missing = numbers
      .split(',')
      .map(Number)
      .filter((number) => !asked.current.has(number));
    if (missing.length === 0) return;
    for (const number of missing) asked.current.add(number);
    const read = Promise.all(missing.map(async (number) => [number, await readSource(id, number)] as const));
    void read.then(
      (fresh) => setSources((known) => new Map([...known, ...fresh])),
      (error: unknown) => onProblem(String(error)),
    );
  }, [id, numbers, onProblem]);
  useEffect(() => {
    void callApi<readonly KeptRule[]>('/api/role-rules').then(onRules, () => onRules([]));
  }, [onRules]);
  return sources;
}

async function readSource(id: number, number: number): Promise<string> {
  const reply = await fetch(`/api/jobs/${id}/source?drawing=${number}`);
  if (!reply.ok) throw new Error('The drawing could not be fetched. Load the page again.');
  return reply.text();
}
