import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import type { Knowledge, LearntSpreads } from '#core/knowledge/knowledge.ts';
import { COMMON_PRIORS, type Priors } from '#core/threshold/thresholdPriors.ts';

const SPREAD_NAMES = ['sheet'] as const;
/** Factors tried on each spread, around where it stands. */
const FACTORS = [0.75, 1.33];
const ROUNDS = 3;
/** How sure the believed spreads are: a factor of e^0.4 is one standard deviation off. */
const LN_SPREAD_SD = 0.4;
/** A book with fewer sheets says nothing of how sheets differ. */
const LEAST_SHEETS = 8;

/**
 * How much the sheets of this book truly differ: the spreads of the own effects of the highest marginal likelihood times
 * a belief in the usual ones. A joint peak would shrink them to nothing; there the own effects are integrated out. Slow (a score of fits), so it is done rarely.
 *
 * @param start knowledge of the same book: where the fits start
 * @returns `null` for a book too small to say
 * Source: Tierney and Kadane 1986, Accurate approximations for posterior moments and marginal densities, JASA 81.
 * @example learnSpreads([{ ...place, trials }], fitKnowledge([{ ...place, trials }])) // null
 */
export function learnSpreads(
  book: readonly EvidenceSheet[],
  start: Knowledge,
  priors: Priors = COMMON_PRIORS,
): LearntSpreads | null {
  if (new Set(book.map(({ materialId }) => materialId)).size < LEAST_SHEETS) return null;
  const usual = priors.beliefs;
  const { trialCount } = start;
  let best: LearntSpreads = start.spreads ?? {
    sheet: usual.sheet.sd,
    gapSheet: usual.gapSheet.sd,
    reachSheet: usual.reachSheet.sd,
    sharesSheet: usual.sharesSheet.sd,
    trialCount,
  };
  let from = start;
  const judge = (spreads: LearntSpreads) => {
    const fitted = fitKnowledge(book, { priors, start: from, spreads, readers: start.readers ?? {} });
    const doubt = SPREAD_NAMES.reduce(
      (sum, name) => sum - 0.5 * (Math.log(spreads[name] / usual[name].sd) / LN_SPREAD_SD) ** 2,
      0,
    );
    return { fitted, worth: fitted.logMarginal + doubt };
  };
  let now = judge(best);
  for (let round = 0; round < ROUNDS; round++) {
    const before = best;
    for (const name of SPREAD_NAMES) {
      for (const factor of FACTORS) {
        const tried = { ...best, [name]: best[name] * factor };
        const found = judge(tried);
        if (found.worth <= now.worth) continue;
        best = tried;
        now = found;
        from = found.fitted;
        break;
      }
    }
    if (best === before) break;
  }
  return { ...best, trialCount };
}
