import { itemAt } from '#core/collections/itemAt.ts';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { integrateOwn } from '#core/knowledge/integrateOwn.ts';
import type { Knowledge, LearntSpreads } from '#core/knowledge/knowledge.ts';
import { COMMON_PRIORS, type Priors } from '#core/threshold/thresholdPriors.ts';

/** Spreads of own effects that a book can teach, each a belief of the same name; and the noise of a cut. */
const NAMES = ['sheet', 'gapSheet', 'reachSheet', 'sharesSheet', 'noise'] as const;
type Name = (typeof NAMES)[number];
type Spreads = Readonly<Record<Name, number>>;

/** How sure the believed spreads are: a factor of e^0.4 is one standard deviation off; the noise is known better. */
const LN_SD: Readonly<Record<Name, number>> = {
  sheet: 0.4,
  gapSheet: 0.4,
  reachSheet: 0.4,
  sharesSheet: 0.4,
  noise: 0.25,
};
/** First step, in ln, and the longest. */
const FIRST_STEP = 0.25;
const LONGEST_STEP = 0.4;
/** However odd a book is, no spread is taken further than this factor from the believed one. */
const FURTHEST = Math.log(1.5);
/** Nor nearer than this: few cuts of a sheet never prove that shapes and noise are more alike than usual. */
const NARROWEST: Readonly<Record<Name, number>> = {
  sheet: Math.log(0.5),
  gapSheet: 0,
  reachSheet: 0,
  sharesSheet: 0,
  noise: 0,
};
/** Twice the slope is looked at, and followed by its secant. */
const LOOKS = 3;
/** A slope that does not fall tells no peak; it is taken to fall so much for each unit of ln. */
const LEAST_FALL = 10;

/**
 * How much the sheets of this book truly differ, and how noisy a cut is: the spreads of the highest marginal likelihood
 * times a belief in the usual ones. A joint peak would shrink them to nothing; here the own effects are integrated out.
 * The slope by each ln spread is what its effects spread beyond it, and is followed to its zero by secants, all at once.
 * Slow (several fits), so it is done rarely.
 *
 * @param start knowledge of the same book: where the fits start
 * @returns `null` for a book too small to say
 * Source: Fisher's identity, see {@link integrateOwn}.
 * @example learnSpreads([{ ...place, trials }], fitKnowledge([{ ...place, trials }])) // null
 */
export function learnSpreads(
  book: readonly EvidenceSheet[],
  start: Knowledge,
  priors: Priors = COMMON_PRIORS,
): LearntSpreads | null {
  const { beliefs } = priors;
  const usual: Spreads = {
    sheet: beliefs.sheet.sd,
    gapSheet: beliefs.gapSheet.sd,
    reachSheet: beliefs.reachSheet.sd,
    sharesSheet: beliefs.sharesSheet.sd,
    noise: Math.exp(beliefs.spread.mean),
  };
  const { trialCount } = start;
  const slopeAt = (off: readonly number[]): readonly number[] | null => {
    const spreads = { ...applied(usual, off), trialCount };
    const fitted = fitKnowledge(book, { priors, start, spreads, readers: start.readers ?? {} });
    const found = integrateOwn(book, fitted, priors);
    if (!found) return null;
    const { squares, noise } = found.moments;
    return NAMES.map((name, index) => {
      const doubt = itemAt(off, index) / LN_SD[name] ** 2;
      if (name === 'noise') return noise.sum / beliefs.spread.sd - doubt;
      const { sum, count } = squares.get(name) ?? { sum: 0, count: 0 };
      return sum - count - doubt;
    });
  };
  const kept = start.spreads;
  let at = NAMES.map((name, index) => within(kept?.[name] ? Math.log(kept[name] / usual[name]) : 0, index));
  let slope = slopeAt(at);
  if (!slope) return null;
  let next = at.map((off, index) => within(off + FIRST_STEP * Math.sign(itemAt(slope ?? [], index)), index));
  for (let look = 1; look < LOOKS; look++) {
    const found = slopeAt(next);
    if (!found) return null;
    const after = next.map((off, index) => {
      const moved = off - itemAt(at, index);
      const rise = (itemAt(found, index) - itemAt(slope ?? [], index)) / moved;
      const fall = moved === 0 || !(rise < 0) ? -LEAST_FALL : rise;
      const step = -itemAt(found, index) / fall;
      return within(off + Math.min(LONGEST_STEP, Math.max(-LONGEST_STEP, step)), index);
    });
    [at, slope, next] = [next, found, after];
  }
  return { ...applied(usual, next), trialCount };
}

const within = (off: number, index: number) =>
  Math.min(FURTHEST, Math.max(NARROWEST[itemAt(NAMES, index)], off));

function applied(usual: Spreads, off: readonly number[]): Spreads {
  return Object.fromEntries(
    NAMES.map((name, index) => [name, usual[name] * Math.exp(itemAt(off, index))]),
  ) as unknown as Spreads;
}
