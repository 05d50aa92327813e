import { useCallback, useEffect, useRef, useState } from 'react';
import type { CheckFacts, Trouble } from '#core/checks/trouble.ts';
import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import type { ShownLayout } from '#core/job/describeLayout.ts';
import type { Machine } from '#core/station/machine.ts';
import type { KeptRule } from '#store/repositories/jobs/roleRules.ts';
import { useDesignThread, type DesignThread } from '#web/islands/job/useDesignThread.ts';
import { useSources } from '#web/islands/job/useSources.ts';
import type { JobReply } from '#web/schemas/job.ts';
import type { BorderAnswer, BorderQuestion } from '#web/workers/designJob.ts';

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
  const border = useBorder();
  const newest = useRef(0);
  const asked = useRef<JobReply | null>(null);
  const [laidJob, setLaidJob] = useState<JobReply | null>(null);
  const thread = useDesignThread(attempt, (data) => {
    if (data.kind === 'border') return border.take(data);
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
  });
  useEffect(() => {
    const numbers = [0, ...(job.moreDrawings ?? []).map(({ number }) => number)];
    if (!numbers.every((number) => sources.has(number))) return;
    thread.tell(sources);
    newest.current += 1;
    asked.current = job;
    thread.ask({
      kind: 'design',
      id: newest.current,
      design: job,
      drawing: looked,
      machine: { marks: machine.marks, printAndCut: machine.printAndCut },
      facts,
      rules,
      checks: { ...checks, spacingMm: job.layout.spacingMm },
    });
    // The facts belong to the page and never change while it is open.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [sources, job, rules, attempt, looked]);
  const askBorder = border.askOf(thread);
  const stop = useCallback(() => {
    thread.end();
    setProgress(null);
    setProblem('Stopped. The drawing is kept; go on whenever you like.');
  }, [thread]);
  const retry = () => (setProblem(null), setAttempt((count) => count + 1));
  const isBehind = laidJob !== job;
  const found = { layout, troubles, progress, problem, isBehind, rules };
  return { ...found, border: border.answer, setRules, askBorder, stop, retry };
}

/** The newest question about a border, and its answer. */
function useBorder() {
  const [answer, setAnswer] = useState<BorderAnswer | null>(null);
  const asked = useRef(0);
  const ask = useRef<Design['askBorder'] | null>(null);
  return {
    answer,
    take: ({ id, border }: { readonly id: number; readonly border: BorderAnswer }) => {
      if (id === asked.current) setAnswer(border);
    },
    /** Always the same, so that who asks is not asked to ask again. */
    askOf: (thread: DesignThread): Design['askBorder'] =>
      (ask.current ??= (file, border) => {
        asked.current += 1;
        if (border) thread.ask({ kind: 'border', id: asked.current, file, border });
        else setAnswer(null);
      }),
  };
}
