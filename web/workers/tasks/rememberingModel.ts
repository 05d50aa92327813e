import { LRUCache } from 'lru-cache';
import { plainBelief } from '#core/threshold/plainBelief.ts';
import type { ThresholdModel, ThresholdPosterior } from '#core/threshold/posterior.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';

const fits = new LRUCache<string, ThresholdPosterior>({ max: 40 });

/** The model of the sheet, remembering its fits: kiss and through of one sheet share one. */
export function rememberingModel(seed: number): ThresholdModel {
  const model = sheetModel(seed);
  return {
    version: model.version,
    fit: (question, trials) => {
      const { belief, conditions } = question;
      const key = JSON.stringify([seed, plainBelief(belief), conditions, trials]);
      const kept = fits.get(key) ?? model.fit(question, trials);
      fits.set(key, kept);
      return kept;
    },
  };
}
