import { plainBelief } from '#core/threshold/plainBelief.ts';
import { LRUCache } from 'lru-cache';
import type { Answer, AnswerContext, composeAnswer } from '#core/answer/composeAnswer.ts';
import { runTask } from '#web/workers/pool.ts';

/** Answers follow from what they are asked with alone, so the same question is worked out once. */
const answers = new LRUCache<string, Promise<Answer | null>>({ max: 300 });

/** {@link composeAnswer} in a thread of the server, remembered: a page seen again costs nothing. */
export function cachedAnswer(...asked: Parameters<typeof composeAnswer>): Promise<Answer | null> {
  const [station, operation, known, cuts, context = {}] = asked;
  const key = JSON.stringify([station, operation, known, cuts, plainContext(context)]);
  const kept = answers.get(key);
  if (kept) return kept;
  const answer = runTask('answer', asked, { lane: 'quick' });
  answers.set(key, answer);
  // What failed is asked anew.
  answer.catch(() => answers.delete(key));
  return answer;
}

/** The context as it can be compared. */
function plainContext({ belief, ...rest }: AnswerContext) {
  return { ...rest, belief: belief && plainBelief(belief) };
}
