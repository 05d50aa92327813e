import { thinEvenly } from '#core/dialIn/thinEvenly.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { targetIndexes } from '#core/threshold/findWindow.ts';
import { misjudge, misjudgingMatrix } from '#core/threshold/sheetModel/misjudging.ts';
import { gradesOfDraw } from '#core/threshold/predictGrades.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';

const MAX_CANDIDATES = 20;
/** The grade from which a liner does not hold. */
const LINER_CUT = 6;
/** A grade less likely than this moves no decision. */
const IMPOSSIBLE = 1e-4;
/** Draws lighter than this change no decision. */
const NEGLIGIBLE_WEIGHT = 1e-6;
/** Draws lighter than this say nothing of a single edge. */
const UNTOLD_WEIGHT = 1e-5;

/**
 * What a cut that spoils a liner or scars the mat costs, in chances of a right cut: as much as three sheets' worth of
 * teaching. Common practice, no source.
 */
const HARM_PRICE = 0.05;
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
): NextCut {
  const candidates = chooseCandidates(posterior, operation, forcesGf);
  const tables = tabulate(posterior, operation, candidates);
  const now = bestColumn(tables.right, tables.weights);
  const isFirst = posterior.trialCount === 0;
  // Where no cut is worth what it may spoil, the best guess stands; but nobody begins there.
  let best = isFirst ? { index: 0, worth: -Infinity } : { index: now.index, worth: 0 };
  for (let cut = 0; cut < candidates.length; cut++) {
    const harm = tables.harm[cut] as number;
    if (isFirst && cut > 0 && (cut > now.index || harm > FIRST_HARM)) break;
    const worth = expectAfter(tables, cut) - now.chance - HARM_PRICE * harm;
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

interface Tables {
  /** Per draw. */
  readonly weights: Float64Array;
  /** Per candidate: P(harm). */
  readonly harm: Float64Array;
  /** Per candidate and draw: P(right). */
  readonly right: readonly Float64Array[];
  /** Per candidate, grade and draw: weight times P(seen grade). */
  readonly seen: readonly (readonly Float64Array[])[];
}

function tabulate(
  posterior: ThresholdPosterior,
  operation: DepthOperation,
  candidates: readonly number[],
): Tables {
  const target = targetIndexes(posterior, operation);
  const draws = Array.from({ length: posterior.drawCount }, (_, draw) => draw).filter(
    (draw) => (posterior.weights[draw] as number) > NEGLIGIBLE_WEIGHT,
  );
  const gradeCount = posterior.grades.length;
  const matrix = misjudgingMatrix(gradeCount);
  const weights = Float64Array.from(draws, (draw) => posterior.weights[draw] as number);
  const truth = new Float64Array(gradeCount);
  const shown = new Float64Array(gradeCount);
  const firstHarm = firstHarmOf(posterior.grades, target.last);
  const harm = new Float64Array(candidates.length);
  const right = candidates.map(() => new Float64Array(draws.length));
  const seen = candidates.map(() => Array.from({ length: gradeCount }, () => new Float64Array(draws.length)));
  candidates.forEach((forceGf, cut) => {
    const lnForce = Math.log(forceGf);
    const rightRow = right[cut] as Float64Array;
    const seenRows = seen[cut] as readonly Float64Array[];
    for (let column = 0; column < draws.length; column++) {
      gradesOfDraw(posterior, draws[column] as number, lnForce, truth);
      let chance = 0;
      for (let grade = target.first; grade <= target.last; grade++) chance += truth[grade] as number;
      rightRow[column] = chance;
      for (let grade = firstHarm; grade < gradeCount; grade++) {
        harm[cut] = (harm[cut] as number) + (weights[column] as number) * (truth[grade] as number);
      }
      misjudge(truth, matrix, shown);
      for (let grade = 0; grade < gradeCount; grade++) {
        (seenRows[grade] as Float64Array)[column] = (weights[column] as number) * (shown[grade] as number);
      }
    }
  });
  return { weights, harm, right, seen };
}

/** From which position on a grade does harm: the liner is cut where it should hold, the mat in any case. */
function firstHarmOf(grades: readonly DepthGrade[], lastWanted: number): number {
  const harm = grades.findIndex((grade) => grade >= LINER_CUT);
  return harm > lastWanted ? harm : grades.length - 1;
}

/** Sum over grades of the best chance once that grade is seen: the grade's probability is inside the sum. */
function expectAfter({ right, seen }: Tables, cut: number): number {
  let expected = 0;
  for (const weights of seen[cut] as readonly Float64Array[]) {
    if (sumOf(weights) > IMPOSSIBLE) expected += bestColumn(right, weights).chance;
  }
  return expected;
}

/** The candidate with the highest weighted chance of being right. */
function bestColumn(
  right: readonly Float64Array[],
  weights: Float64Array,
): { readonly index: number; readonly chance: number } {
  let best = { index: 0, chance: -1 };
  for (let index = 0; index < right.length; index++) {
    const row = right[index] as Float64Array;
    let chance = 0;
    for (let draw = 0; draw < row.length; draw++) chance += (row[draw] as number) * (weights[draw] as number);
    if (chance > best.chance) best = { index, chance };
  }
  return best;
}

function sumOf(values: Float64Array): number {
  let sum = 0;
  for (let index = 0; index < values.length; index++) sum += values[index] as number;
  return sum;
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
