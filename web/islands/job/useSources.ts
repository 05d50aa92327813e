import { useEffect, useRef, useState } from 'react';
import type { KeptRule } from '#store/repositories/jobs/roleRules.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { JobReply } from '#web/schemas/job.ts';

/** The files and the workshop's rules, each fetched once. */
export function useSources(
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
  const reply = await fetch(`/api/jobs/${id}/source?drawing=${number}&pictures=apart`);
  if (!reply.ok) throw new Error('The drawing could not be fetched. Load the page again.');
  return reply.text();
}
