import { wrap, type Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { PracticeThread } from '#web/workers/practiceThread.ts';

/** What is asked of the thread, worked out anew whenever `key` changes; `null` until it is there. */
export function usePracticeThread<Answer>(
  key: string | null,
  ask: (thread: Remote<PracticeThread>) => Promise<Answer>,
): Answer | null {
  const thread = useRef<Remote<PracticeThread> | null>(null);
  const [answer, setAnswer] = useState<{ readonly key: string; readonly is: Answer } | null>(null);
  useEffect(() => {
    const worker = new Worker(new URL('../../workers/practiceThread.ts', import.meta.url), {
      type: 'module',
    });
    thread.current = wrap<PracticeThread>(worker);
    return () => worker.terminate();
  }, []);
  useEffect(() => {
    if (key === null || !thread.current) return;
    let isWanted = true;
    void ask(thread.current).then((is) => isWanted && setAnswer({ key, is }));
    return () => {
      isWanted = false;
    };
    // What is asked follows from the key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return answer !== null && answer.key === key ? answer.is : null;
}
