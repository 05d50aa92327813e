import type { LocalDerivatives, MaterialEvidence } from '#core/knowledge/materialFit.ts';
import {
  choleskyOf,
  dot,
  logDetOf,
  solveCholesky,
  solveLowerInto,
  solveTransposed,
  type SquareMatrix,
} from '#core/threshold/numerics/cholesky.ts';

/** A material's own effects eliminated: what it says about the sharedEffects alone, and how to get its effects back. */
export interface Eliminated {
  /** Gradient by the touched effects after elimination. */
  readonly score: Float64Array;
  /** Information on the touched effects after elimination, side = touched. */
  readonly information: SquareMatrix;
  /** ln of the determinant of the own block: its share of the evidence. */
  readonly logDet: number;
  /** The step of the own effects for a step of the touched ones. */
  readonly stepOwn: (touchedStep: Float64Array) => Float64Array;
}

/**
 * The block of the own effects, factored, and the step that it alone would take while the shared ones stay.
 *
 * @example factorOwn(evidence, derivatives).step.length === evidence.ownNames.length // true
 */
export function factorOwn(
  { touched, ownNames }: MaterialEvidence,
  { score, information }: LocalDerivatives,
): { readonly lower: SquareMatrix; readonly step: Float64Array } {
  const shared = touched.length;
  const own = ownNames.length;
  const size = shared + own;
  const block = new Float64Array(own * own);
  for (let a = 0; a < own; a++) {
    const row = (shared + a) * size + shared;
    block.set(information.subarray(row, row + own), a * own);
  }
  const lower = choleskyOf(block, own);
  if (!lower) throw new Error('a block with a proper prior is positive definite');
  return { lower, step: solveCholesky(lower, own, score.slice(shared)) };
}

/**
 * The Schur complement of the material's own block.
 *
 * @example eliminateOwn(evidence, derivatives).score.length === evidence.touched.length // true
 */
export function eliminateOwn(material: MaterialEvidence, derivatives: LocalDerivatives): Eliminated {
  const { score, information } = derivatives;
  const shared = material.touched.length;
  const own = material.ownNames.length;
  const size = shared + own;
  const { lower, step: ownStep } = factorOwn(material, derivatives);
  // Row per touched effect: L⁻¹ times its column of the cross information. Their products are what is taken off.
  const solved = new Float64Array(shared * own);
  for (let j = 0; j < shared; j++) solveLowerInto(solved.subarray(j * own, (j + 1) * own), lower, crossOf(j));
  function crossOf(j: number): Float64Array {
    return information.subarray(j * size + shared, (j + 1) * size);
  }
  const reducedScore = score.slice(0, shared);
  const reduced = new Float64Array(shared * shared);
  for (let j = 0; j < shared; j++) {
    reducedScore[j] = (reducedScore[j] as number) - dot(crossOf(j), 0, ownStep, 0, own);
    for (let k = 0; k <= j; k++) {
      const left = (information[j * size + k] as number) - dot(solved, j * own, solved, k * own, own);
      reduced[j * shared + k] = left;
      reduced[k * shared + j] = left;
    }
  }
  return {
    score: reducedScore,
    information: reduced,
    logDet: logDetOf(lower, own),
    stepOwn: (touchedStep) => {
      const pulled = new Float64Array(own);
      for (let j = 0; j < shared; j++) {
        const step = touchedStep[j] as number;
        for (let a = 0; a < own; a++)
          pulled[a] = (pulled[a] as number) + step * (solved[j * own + a] as number);
      }
      const back = solveTransposed(lower, own, pulled);
      return ownStep.map((value, a) => value - (back[a] as number));
    },
  };
}

/**
 * Adds (or with -1 takes off) what one material says of the effects it touches.
 *
 * @example ((score) => (scatter({ score: Float64Array.of(5), information: Float64Array.of(2) }, [1], score, new Float64Array(4)), [...score]))(new Float64Array(2)) // [0, 5]
 */
export function scatter(
  from: Pick<Eliminated, 'score' | 'information'>,
  touched: readonly number[],
  score: Float64Array,
  information: Float64Array,
  sign: 1 | -1 = 1,
): void {
  const size = score.length;
  touched.forEach((row, j) => {
    score[row] = (score[row] as number) + sign * (from.score[j] as number);
    touched.forEach((column, k) => {
      const index = row * size + column;
      information[index] =
        (information[index] as number) + sign * (from.information[j * touched.length + k] as number);
    });
  });
}
