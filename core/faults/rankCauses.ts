import { itemAt } from '#core/collections/itemAt.ts';
import { FINDINGS, FINDING_FACTS, type Finding } from '#core/faults/findings.ts';
import { CAUSES, factsOfCause, LEAK, type Cause } from '#core/faults/causes.ts';
import type { Hold } from '#core/faults/listCauses.ts';
import type { Symptom } from '#core/faults/symptoms.ts';

/** What is known of each piece of evidence; what is not named is not known. */
export type KnownFindings = Readonly<Partial<Record<Finding, boolean>>>;

/** Causes that turned out to be behind faults at this workshop, as counts. */
export type CauseCounts = Readonly<Partial<Record<Cause, number>>>;

/** A cause with its chance, and what speaks for it. */
export interface RankedFault {
  readonly cause: Cause;
  readonly chance: number;
  /** One sentence: why it makes this, and what of the log speaks for or against it. */
  readonly reason: string;
}

/** The common priors count like so many faults seen. */
const PRIOR_WEIGHT = 30;
/** Finding that speaks this much for or against a cause is told. */
const TOLD_RATIO = 1.6;

/**
 * The chance of each cause, by Bayes' rule over a network of one layer: causes with priors, symptoms and evidence that
 * are independent given the cause. One cause is taken to be behind a fault. Causes that explain nothing of what is seen stay
 * out, however much else speaks for them: an old blade hides no marks.
 *
 * @param symptoms what is seen; at least one
 * @param learnt causes found at this workshop: they move the priors
 * @param hold how the machine holds its sheet: what it has not cannot be at fault; `null` where nobody says
 * @returns the causes that explain something, likeliest first; their chances sum to 1
 * @example rankCauses(['marksNotRead'], { isGlossy: true })[0].cause // 'glare'
 */
export function rankCauses(
  symptoms: readonly Symptom[],
  known: KnownFindings,
  learnt: CauseCounts = {},
  hold: Hold | null = null,
): readonly RankedFault[] {
  const priors = priorsOf(learnt);
  const explaining = CAUSES.filter((cause) => {
    const { shows, needs } = factsOfCause(cause);
    const isHere = hold === null || needs === undefined || needs === hold;
    return isHere && symptoms.some((symptom) => shows[symptom] !== undefined);
  });
  const causes = explaining.length > 0 ? explaining : CAUSES;
  const weights = causes.map((cause) => priors[cause] * likelihoodOf(cause, symptoms, known));
  const sum = weights.reduce((all, one) => all + one, 0);
  return causes
    .map((cause, index) => ({
      cause,
      chance: itemAt(weights, index) / sum,
      reason: reasonOf(cause, known),
    }))
    .sort((a, b) => b.chance - a.chance);
}

/** A question that is not answered yet, with how much the answer is worth. */
export interface Question {
  readonly evidence: Finding;
  readonly words: string;
  /** Bits by which the answer narrows the causes, on average. */
  readonly bits: number;
}

/**
 * The open question that tells most about the cause, or `null` when none is worth the asking.
 *
 * @example nextQuestion(['whiteEdge'], {})?.evidence // 'isShifted'
 */
export function nextQuestion(
  symptoms: readonly Symptom[],
  known: KnownFindings,
  learnt: CauseCounts = {},
  hold: Hold | null = null,
): Question | null {
  const now = rankCauses(symptoms, known, learnt, hold);
  const before = entropy(now.map(({ chance }) => chance));
  const worth = FINDINGS.flatMap((evidence): readonly Question[] => {
    const { question } = FINDING_FACTS[evidence];
    if (question === null || known[evidence] !== undefined) return [];
    const yes = now.reduce((sum, { cause, chance }) => sum + chance * chanceOf(evidence, cause), 0);
    const after = ([true, false] as const).reduce((sum, answer) => {
      const share = answer ? yes : 1 - yes;
      const then = rankCauses(symptoms, { ...known, [evidence]: answer }, learnt, hold);
      return sum + share * entropy(then.map(({ chance }) => chance));
    }, 0);
    return [{ evidence, words: question, bits: before - after }];
  });
  const best = worth.reduce<Question | null>((top, one) => (top && top.bits >= one.bits ? top : one), null);
  return best && best.bits >= LEAST_BITS ? best : null;
}

/** An answer that narrows less is not worth the asking. */
const LEAST_BITS = 0.05;

function priorsOf(learnt: CauseCounts): Readonly<Record<Cause, number>> {
  const seen = CAUSES.reduce((sum, cause) => sum + (learnt[cause] ?? 0), 0);
  const common = CAUSES.reduce((sum, cause) => sum + factsOfCause(cause).prior, 0);
  return Object.fromEntries(
    CAUSES.map((cause) => [
      cause,
      ((PRIOR_WEIGHT * factsOfCause(cause).prior) / common + (learnt[cause] ?? 0)) / (PRIOR_WEIGHT + seen),
    ]),
  ) as Record<Cause, number>;
}

function likelihoodOf(cause: Cause, symptoms: readonly Symptom[], known: KnownFindings): number {
  const { shows } = factsOfCause(cause);
  // Only what somebody saw and said counts: what is not said may not have been looked for.
  const seen = symptoms.reduce((product, symptom) => product * (shows[symptom] ?? LEAK), 1);
  return FINDINGS.reduce((product, evidence) => {
    const is = known[evidence];
    if (is === undefined) return product;
    const chance = chanceOf(evidence, cause);
    return product * (is ? chance : 1 - chance);
  }, seen);
}

function chanceOf(evidence: Finding, cause: Cause): number {
  return factsOfCause(cause).given[evidence] ?? FINDING_FACTS[evidence].usual;
}

function reasonOf(cause: Cause, known: KnownFindings): string {
  const told = FINDINGS.filter((evidence) => {
    if (known[evidence] !== true) return false;
    const ratio = chanceOf(evidence, cause) / FINDING_FACTS[evidence].usual;
    return ratio >= TOLD_RATIO;
  }).map((evidence) => FINDING_FACTS[evidence].words);
  const { why } = factsOfCause(cause);
  return told.length > 0 ? `${why}; ${told.join(', ')}` : why;
}

function entropy(chances: readonly number[]): number {
  return chances.reduce((sum, chance) => (chance > 0 ? sum - chance * Math.log2(chance) : sum), 0);
}
