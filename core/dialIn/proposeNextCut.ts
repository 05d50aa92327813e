import { thinEvenly } from '#core/dialIn/thinEvenly.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { targetIndexes } from '#core/threshold/findWindow.ts';
import { misjudgingMatrix } from '#core/threshold/sheetModel/misjudging.ts';
import { gradesOfDraw } from '#core/threshold/predictGrades.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';

const MAX_CANDIDATES = 20;
/** The grade from which a liner does not hold. */
const LINER_CUT = 6;
/** A grade less likely than this moves no decision. */
const IMPOSSIBLE = 1e-4;
/** Draws lighter than this change no decision. */
const NEGLIGIBLE_WEIGHT = 1e-6;
/** A draw's part in a grade below this is left out. */
const UNSEEN = 1e-8;
/** A force that is right less often than this in a draw is not looked at. */
const NEVER = 1e-6;
/** Draws lighter than this say nothing of a single edge. */
const UNTOLD_WEIGHT = 1e-5;

/** Another test cut that gains less than this is not worth its sheet: found on the referee, see docs. */
export const WORTHWHILE_GAIN = 0.0125;
/** A cut that spoils a liner or scars the mat costs as much as so many test cuts. Common practice, no source. */
export const HARM_CUTS = 4;
/** The first cut of an unknown sheet does harm at most this often, where the machine goes that low. */
const FIRST_HARM = 0.08;

/** The force to try next and what trying it is worth. */
export interface NextCut {
  readonly forceGf: number;
  /**
   * By how much the chance of a right cut is expected to rise after this test cut and its grade, less what it may spoil.
   */
  readonly gain: number;
  /** The chance that it cuts the liner of a kiss, or the mat. */
  readonly harm: number;
  /** The best chance of a right cut now, at `bestGf`. */
  readonly chanceNow: number;
  readonly bestGf: number;
}

/**
 * The test cut that is expected to raise the best reachable chance of a right cut the most: for each candidate
 * force, every grade it may show is weighed, the beliefs it would leave are worked out, and the best force under
 * them is found (the knowledge gradient), and what the cut may spoil is taken off. While nothing has been cut yet, no
 * candidate lies above the best guess or does harm more than one time in twelve: the low side comes first.
 *
 * Every draw of the posterior is asked. A few hundred resampled ones are quicker, but the best of several forces
 * under few draws looks better than it is, and that false gain costs about half a cut per sheet.
 *
 * @param harmCuts what a cut liner or a scarred mat costs, in test cuts; 0 minds nothing but what is taught
 * @param forcesGf every force the machine can be set to, in gf, ascending, at least one
 * @throws AppError `badInput` when the sheet has no such operation
 * Source: Frazier, Powell and Dayanik 2008, A knowledge-gradient policy for sequential information collection, SIAM
 * J. Control Optim. 47.
 * @example proposeNextCut(posterior, 'kiss', forces).bestGf // 75
 */
export function proposeNextCut(
  posterior: ThresholdPosterior,
  operation: DepthOperation,
  forcesGf: readonly number[],
  harmCuts: number = HARM_CUTS,
): NextCut {
  const candidates = chooseCandidates(posterior, operation, forcesGf);
  const tables = tabulate(posterior, operation, candidates);
  const now = bestOf(tables.right);
  const misread = misjudgingMatrix(posterior.grades.length);
  const isFirst = posterior.trialCount === 0;
  // Where no cut is worth what it may spoil, the best guess stands; but nobody begins there.
  let best = isFirst ? { index: 0, worth: -Infinity } : { index: now.index, worth: 0 };
  for (let cut = 0; cut < candidates.length; cut++) {
    const harm = tables.harm[cut] as number;
    if (isFirst && cut > 0 && (cut > now.index || harm > FIRST_HARM)) break;
    const worth = expectAfter(tables, cut, misread) - now.chance - harmCuts * WORTHWHILE_GAIN * harm;
    if (worth > best.worth) best = { index: cut, worth };
  }
  return {
    forceGf: candidates[best.index] as number,
    gain: Math.max(0, best.worth),
    harm: tables.harm[best.index] as number,
    chanceNow: now.chance,
    bestGf: candidates[now.index] as number,
  };
}

/** What cuts would teach, summed over all draws. K grades, C candidate forces. */
interface Tables {
  /** Per candidate: P(right). */
  readonly right: Float64Array;
  /** Per candidate: P(harm). */
  readonly harm: Float64Array;
  /** Per cut: P(true grade), length K. */
  readonly shares: readonly Float64Array[];
  /** Per cut: P(true grade at the cut, and right at a candidate), K x C, row-major. */
  readonly joint: readonly Float64Array[];
}

function tabulate(
  posterior: ThresholdPosterior,
  operation: DepthOperation,
  candidates: readonly number[],
): Tables {
  const { first, last } = targetIndexes(posterior, operation);
  const size = candidates.length;
  const lnForces = Float64Array.from(candidates, Math.log);
  const gradeCount = posterior.grades.length;
  const truths = candidates.map(() => new Float64Array(gradeCount));
  const rightHere = new Float64Array(size);
  const right = new Float64Array(size);
  const shares = candidates.map(() => new Float64Array(gradeCount));
  const joint = candidates.map(() => new Float64Array(gradeCount * size));
  for (let draw = 0; draw < posterior.drawCount; draw++) {
    const weight = posterior.weights[draw] as number;
    if (weight < NEGLIGIBLE_WEIGHT) continue;
    let from = size;
    let to = 0;
    for (let cut = 0; cut < size; cut++) {
      const truth = gradesOfDraw(posterior, draw, lnForces[cut] as number, truths[cut] as Float64Array);
      let chance = 0;
      for (let grade = first; grade <= last; grade++) chance += truth[grade] as number;
      rightHere[cut] = chance;
      if (chance > NEVER) {
        from = Math.min(from, cut);
        to = cut + 1;
      }
      right[cut] = (right[cut] as number) + weight * chance;
    }
    for (let cut = 0; cut < size; cut++) {
      const truth = truths[cut] as Float64Array;
      const share = shares[cut] as Float64Array;
      const table = joint[cut] as Float64Array;
      for (let grade = 0; grade < gradeCount; grade++) {
        const here = weight * (truth[grade] as number);
        // In one draw a force gives two or three grades; the rest is rounding.
        if (here < UNSEEN) continue;
        share[grade] = (share[grade] as number) + here;
        const row = grade * size;
        for (let at = from; at < to; at++) {
          table[row + at] = (table[row + at] as number) + here * (rightHere[at] as number);
        }
      }
    }
  }
  const harmful = firstHarmOf(posterior.grades, last);
  const harm = Float64Array.from(shares, (share) =>
    share.subarray(harmful).reduce((sum, one) => sum + one, 0),
  );
  return { right, harm, shares, joint };
}

/** From which position on a grade does harm: the liner is cut where it should hold, the mat in any case. */
function firstHarmOf(grades: readonly DepthGrade[], lastWanted: number): number {
  const harm = grades.findIndex((grade) => grade >= LINER_CUT);
  return harm > lastWanted ? harm : grades.length - 1;
}

/**
 * Sum over grades that may be seen of the best chance once that grade is seen: the grade's probability is inside the sum.
 * Misreading turns true grades into seen ones after all draws are summed, since it is the same in all of them.
 */
function expectAfter({ shares, joint }: Tables, cut: number, misread: readonly Float64Array[]): number {
  const share = shares[cut] as Float64Array;
  const table = joint[cut] as Float64Array;
  const size = shares.length;
  const mixed = new Float64Array(size);
  let expected = 0;
  for (let seen = 0; seen < misread.length; seen++) {
    let chance = 0;
    mixed.fill(0);
    for (let truth = 0; truth < misread.length; truth++) {
      const odds = (misread[truth] as Float64Array)[seen] as number;
      chance += odds * (share[truth] as number);
      for (let at = 0; at < size; at++) {
        mixed[at] = (mixed[at] as number) + odds * (table[truth * size + at] as number);
      }
    }
    if (chance > IMPOSSIBLE) expected += bestOf(mixed).chance;
  }
  return expected;
}

/** The candidate with the highest chance. */
function bestOf(chances: Float64Array): { readonly index: number; readonly chance: number } {
  let index = 0;
  for (let at = 1; at < chances.length; at++) {
    if ((chances[at] as number) > (chances[index] as number)) index = at;
  }
  return { index, chance: chances[index] as number };
}

/** Settable forces over the believed range of the window, thinned evenly in log to {@link MAX_CANDIDATES}. */
function chooseCandidates(
  posterior: ThresholdPosterior,
  operation: DepthOperation,
  forcesGf: readonly number[],
): readonly number[] {
  const target = targetIndexes(posterior, operation);
  const edges = posterior.grades.length - 1;
  let low = Infinity;
  let high = -Infinity;
  for (let draw = 0; draw < posterior.drawCount; draw++) {
    if ((posterior.weights[draw] as number) < UNTOLD_WEIGHT) continue;
    low = Math.min(low, posterior.boundaries[draw * edges + target.first - 1] as number);
    high = Math.max(high, posterior.boundaries[draw * edges + target.last] as number);
  }
  const inside = forcesGf.filter((force) => force >= Math.exp(low) * 0.8 && force <= Math.exp(high) * 1.1);
  const pool = inside.length > 0 ? inside : [forcesGf[0] as number, forcesGf.at(-1) as number];
  return thinEvenly(pool, MAX_CANDIDATES);
}
