import { LRUCache } from 'lru-cache';
import { composeAnswer, type Answer } from '#core/setting/composeAnswer.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';
import { singleSheetModel } from '#core/threshold/singleSheetModel.ts';
import type { ThresholdModel } from '#core/threshold/posterior.ts';

/** Answers follow from what they are asked with alone, so the same question need not be worked out twice. */
const answers = new LRUCache<string, { readonly answer: Answer | null }>({ max: 300 });
const fits = new LRUCache<string, ThresholdPosterior>({ max: 40 });

/** {@link composeAnswer}, remembered: kiss and through of one sheet share one fit, a page seen again costs nothing. */
export function cachedAnswer(...asked: Parameters<typeof composeAnswer>): Answer | null {
  const [station, operation, known, cuts, passes = null] = asked;
  const key = JSON.stringify([station, operation, known, cuts, passes]);
  const kept = answers.get(key);
  if (kept) return kept.answer;
  const answer = composeAnswer(station, operation, known, cuts, passes, rememberingModel);
  answers.set(key, { answer });
  return answer;
}

function rememberingModel(seed: number): ThresholdModel {
  const model = singleSheetModel(seed);
  return {
    version: model.version,
    fit: (question, trials) => {
      const key = JSON.stringify([model.version, seed, question, trials]);
      const kept = fits.get(key) ?? model.fit(question, trials);
      fits.set(key, kept);
      return kept;
    },
  };
}
