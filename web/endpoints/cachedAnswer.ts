import { LRUCache } from 'lru-cache';
import { composeAnswer, type Answer, type AnswerContext } from '#core/setting/composeAnswer.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';
import { sheetModel } from '#core/threshold/sheetModel.ts';
import type { ThresholdModel } from '#core/threshold/posterior.ts';

/** Answers follow from what they are asked with alone, so the same question need not be worked out twice. */
const answers = new LRUCache<string, { readonly answer: Answer | null }>({ max: 300 });
const fits = new LRUCache<string, ThresholdPosterior>({ max: 40 });

/** {@link composeAnswer}, remembered: kiss and through of one sheet share one fit, a page seen again costs nothing. */
export function cachedAnswer(...asked: Parameters<typeof composeAnswer>): Answer | null {
  const [station, operation, known, cuts, context = {}] = asked;
  const key = JSON.stringify([station, operation, known, cuts, plainContext(context)]);
  const kept = answers.get(key);
  if (kept) return kept.answer;
  const answer = composeAnswer(station, operation, known, cuts, { ...context, makeModel: rememberingModel });
  answers.set(key, { answer });
  return answer;
}

/** The context as it can be compared: typed arrays would be written as objects. */
function plainContext({ belief, ...rest }: AnswerContext) {
  return { ...rest, belief: belief && [[...belief.mean], [...belief.precision]] };
}

/** The model of the sheet, remembering its fits: kiss and through of one sheet share one. */
export function rememberingModel(seed: number): ThresholdModel {
  const model = sheetModel(seed);
  return {
    version: model.version,
    fit: (question, trials) => {
      const { mean, precision } = question.belief;
      const key = JSON.stringify([seed, [...mean], [...precision], question.conditions, trials]);
      const kept = fits.get(key) ?? model.fit(question, trials);
      fits.set(key, kept);
      return kept;
    },
  };
}
