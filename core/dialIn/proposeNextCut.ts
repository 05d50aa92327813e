import { seededRandom, type Random } from '#core/random/seededRandom.ts';
import type { Operation } from '#core/stack/depthGrade.ts';
import { targetIndexes } from '#core/threshold/findWindow.ts';
import { misjudge, misjudgingMatrix } from '#core/threshold/misjudging.ts';
import { gradesOfDraw } from '#core/threshold/predictGrades.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';

const RESAMPLED_DRAWS = 240;
const MAX_CANDIDATES = 40;
/** A grade less likely than this moves no decision. */
const IMPOSSIBLE = 1e-4;

/** The force to try next and what trying it is worth. */
export interface NextCut {
  readonly forceGf: number;
  /** By how much the chance of a right cut is expected to rise after this test cut and its grade. */
  readonly gain: number;
  /** The best chance of a right cut now, at `bestGf`. */
  readonly chanceNow: number;
  readonly bestGf: number;
}

/**
 * The test cut that is expected to raise the best reachable chance of a right cut the most: for each candidate
 * force, every grade it may show is weighed, the beliefs it would leave are worked out, and the best force under
 * them is found. While nothing has been cut yet, no candidate lies above the best guess: the low side comes first.
 *
 * @param forcesGf every force the machine can be set to, in gf, ascending, at least one
 * @param seed repeats the same proposal for the same posterior
 * @throws AppError `badInput` when the sheet has no such operation
 */
export function proposeNextCut(
  posterior: ThresholdPosterior,
  operation: Operation,
  forcesGf: readonly number[],
  seed: number,
): NextCut {
  const draws = resample(posterior, seededRandom(seed));
  const candidates = chooseCandidates(posterior, operation, forcesGf);
  const tables = tabulate(posterior, operation, draws, candidates);
  const now = bestColumn(tables.right, null, candidates.length, draws.length);
  const allowed = posterior.trialCount === 0 ? now.index + 1 : candidates.length;
  let best = { index: now.index, expected: -1 };
  for (let cut = 0; cut < allowed; cut++) {
    const expected = expectAfter(tables, cut, candidates.length, draws.length);
    if (expected > best.expected) best = { index: cut, expected };
  }
  return {
    forceGf: candidates[best.index] as number,
    gain: Math.max(0, best.expected - now.chance),
    chanceNow: now.chance,
    bestGf: candidates[now.index] as number,
  };
}

interface Tables {
  /** candidate x draw: P(right). */
  readonly right: Float64Array;
  /** candidate x grade x draw: P(seen grade). */
  readonly seen: Float64Array;
  readonly gradeCount: number;
}

function tabulate(
  posterior: ThresholdPosterior,
  operation: Operation,
  draws: readonly number[],
  candidates: readonly number[],
): Tables {
  const target = targetIndexes(posterior, operation);
  const gradeCount = posterior.grades.length;
  const matrix = misjudgingMatrix(gradeCount);
  const right = new Float64Array(candidates.length * draws.length);
  const seen = new Float64Array(candidates.length * gradeCount * draws.length);
  const truth = new Float64Array(gradeCount);
  const shown = new Float64Array(gradeCount);
  candidates.forEach((forceGf, cut) => {
    draws.forEach((draw, column) => {
      gradesOfDraw(posterior, draw, Math.log(forceGf), truth);
      let chance = 0;
      for (let grade = target.first; grade <= target.last; grade++) chance += truth[grade] as number;
      right[cut * draws.length + column] = chance;
      misjudge(truth, matrix, shown);
      for (let grade = 0; grade < gradeCount; grade++) {
        seen[(cut * gradeCount + grade) * draws.length + column] = shown[grade] as number;
      }
    });
  });
  return { right, seen, gradeCount };
}

/** Sum over grades of the best chance once that grade is seen: the grade's probability is inside the sum. */
function expectAfter(tables: Tables, cut: number, candidateCount: number, drawCount: number): number {
  let expected = 0;
  for (let grade = 0; grade < tables.gradeCount; grade++) {
    const start = (cut * tables.gradeCount + grade) * drawCount;
    const weights = tables.seen.subarray(start, start + drawCount);
    if (sumOf(weights) < IMPOSSIBLE * drawCount) continue;
    expected += bestColumn(tables.right, weights, candidateCount, drawCount).chance;
  }
  return expected;
}

/** The candidate with the highest chance of being right, its draws weighed by `weights`, or equally. */
function bestColumn(
  right: Float64Array,
  weights: Float64Array | null,
  candidateCount: number,
  drawCount: number,
): { readonly index: number; readonly chance: number } {
  let best = { index: 0, chance: -1 };
  for (let candidate = 0; candidate < candidateCount; candidate++) {
    const column = right.subarray(candidate * drawCount, (candidate + 1) * drawCount);
    const sum = weights ? dot(column, weights) : sumOf(column);
    if (sum / drawCount > best.chance) best = { index: candidate, chance: sum / drawCount };
  }
  return best;
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let index = 0; index < a.length; index++) sum += (a[index] as number) * (b[index] as number);
  return sum;
}

function sumOf(values: Float64Array): number {
  let sum = 0;
  for (let index = 0; index < values.length; index++) sum += values[index] as number;
  return sum;
}

/** Settable forces over the believed range of the window, thinned evenly to at most {@link MAX_CANDIDATES}. */
function chooseCandidates(
  posterior: ThresholdPosterior,
  operation: Operation,
  forcesGf: readonly number[],
): readonly number[] {
  const target = targetIndexes(posterior, operation);
  const edges = posterior.grades.length - 1;
  let low = Infinity;
  let high = -Infinity;
  for (let draw = 0; draw < posterior.drawCount; draw++) {
    if ((posterior.weights[draw] as number) < 1e-5) continue;
    low = Math.min(low, posterior.boundaries[draw * edges + target.first - 1] as number);
    high = Math.max(high, posterior.boundaries[draw * edges + target.last] as number);
  }
  const inside = forcesGf.filter((force) => force >= Math.exp(low) * 0.8 && force <= Math.exp(high) * 1.1);
  const pool = inside.length > 0 ? inside : [forcesGf[0] as number, forcesGf.at(-1) as number];
  if (pool.length <= MAX_CANDIDATES) return pool;
  const stride = (pool.length - 1) / (MAX_CANDIDATES - 1);
  return Array.from({ length: MAX_CANDIDATES }, (_, index) => pool[Math.round(index * stride)] as number);
}

/** Systematic resampling: equal weights after it, with the least noise for its number of draws. */
function resample(posterior: ThresholdPosterior, random: Random): readonly number[] {
  const picked: number[] = [];
  let position = random() / RESAMPLED_DRAWS;
  let running = 0;
  for (let draw = 0; draw < posterior.drawCount; draw++) {
    running += posterior.weights[draw] as number;
    while (picked.length < RESAMPLED_DRAWS && position < running) {
      picked.push(draw);
      position += 1 / RESAMPLED_DRAWS;
    }
  }
  while (picked.length < RESAMPLED_DRAWS) picked.push(posterior.drawCount - 1);
  return picked;
}
