import { wrap, type Remote } from 'comlink';
import { useCallback, useEffect, useRef } from 'react';
import type { Answer } from '#core/answer/composeAnswer.ts';
import type { AnswerOrder, AnswerSheet } from '#web/workers/answerSheet.ts';

/** Answers a grade in the browser's own thread while the server still records it. The newest question wins. */
export function useLocalAnswer(): (order: AnswerOrder) => Promise<Answer | null> {
  const ask = useRef<Remote<AnswerSheet> | null>(null);
  const newest = useRef(0);
  useEffect(() => {
    const thread = new Worker(new URL('../../workers/answerSheet.ts', import.meta.url), { type: 'module' });
    ask.current = wrap<AnswerSheet>(thread);
    return () => thread.terminate();
  }, []);
  return useCallback(async (order) => {
    newest.current += 1;
    const mine = newest.current;
    const answer = (await ask.current?.(order)) ?? null;
    return mine === newest.current ? answer : null;
  }, []);
}
