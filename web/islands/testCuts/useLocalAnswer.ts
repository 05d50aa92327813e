import { useCallback, useEffect, useRef } from 'react';
import type { Answer } from '#core/answer/composeAnswer.ts';
import type { AnswerOrder, AnswerResult } from '#web/workers/answerSheet.ts';

/** Answers a grade in the browser's own thread while the server still records it. The newest question wins. */
export function useLocalAnswer(): (order: Omit<AnswerOrder, 'id'>) => Promise<Answer | null> {
  const worker = useRef<Worker | null>(null);
  const waiting = useRef<{ id: number; resolve: (answer: Answer | null) => void } | null>(null);
  useEffect(() => {
    const thread = new Worker(new URL('../../workers/answerSheet.ts', import.meta.url), { type: 'module' });
    thread.onmessage = ({ data }: MessageEvent<AnswerResult>) => {
      if (waiting.current?.id === data.id) waiting.current.resolve(data.answer);
    };
    worker.current = thread;
    return () => thread.terminate();
  }, []);
  return useCallback((order) => {
    const id = (waiting.current?.id ?? 0) + 1;
    return new Promise((resolve) => {
      waiting.current = { id, resolve };
      worker.current?.postMessage({ ...order, id } satisfies AnswerOrder);
    });
  }, []);
}
