import { AppError } from '#core/errors/appError.ts';
import { gradesOfStack, type DepthGrade } from '#core/stack/depthGrade.ts';
import type { SquareMatrix } from '#core/threshold/numerics/cholesky.ts';
import { FAST_PROBIT } from '#core/threshold/numerics/fastProbit.ts';
import { effectMultipliers, shiftBy } from '#core/threshold/sheetModel/latentShift.ts';
import { CELL_WEIGHT, BATCH_NODES, BATCH_SPREAD, OWN_SPREAD } from '#core/threshold/batches.ts';
import { CARELESSNESS, misjudgingMatrix, nearestReading } from '#core/threshold/sheetModel/misjudging.ts';
import {
  makeOrdinalKernel,
  PROBABILITY_FLOOR,
  type OrdinalKernel,
} from '#core/threshold/sheetModel/ordinalKernel.ts';
import { boundaryPositions, sheetBoundaries } from '#core/threshold/sheetModel/sheetBoundaries.ts';
import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import type { Readers, Trial } from '#core/threshold/trial.ts';

/** A trial with everything worked out that no parameter changes. */
export interface PreparedTrial {
  readonly lnForce: number;
  readonly by: ReturnType<typeof effectMultipliers>;
  /** Position of the seen grade among the sheet's grades. */
  readonly seen: number;
  /** The deepest position it may have had; the same as `seen` for one grade. */
  readonly last: number;
  /** How far it counts, 0 to 1: a run or an old lot counts less than a fresh test cut. */
  readonly weight: number;
  /** The load whose noise it shares, or `undefined`. */
  readonly load: number | undefined;
  /** Of the kernels, by how carelessly it was read. */
  readonly kernel: number;
}

/** The likelihood of the trials of one sheet by its parameters (12 on a layered sheet, 8 on a single layer). */
export interface SheetLikelihood {
  readonly grades: readonly DepthGrade[];
  /** @throws AppError `badInput` for a force that is not above 0 or a grade this sheet cannot show */
  readonly prepare: (trial: Trial, readers?: Readers) => PreparedTrial;
  /** Log likelihood; the cells of a load count for less instead of sharing their noise. */
  readonly value: (trials: readonly PreparedTrial[], parameters: Float64Array) => number;
  /** Log likelihood with the shared noise of each load integrated out. @param loads from groupBatches */
  readonly exactValue: (loads: readonly (readonly PreparedTrial[])[], parameters: Float64Array) => number;
  /** Adds gradient and expected information of the trials to what is there; returns their log likelihood. */
  readonly derive: (
    trials: readonly PreparedTrial[],
    parameters: Float64Array,
    score: Float64Array,
    information: SquareMatrix,
  ) => number;
}

/** The likelihoods of both kinds of sheet; they hold scratch space, so there is one of each. */
export const SHEET_LIKELIHOODS = {
  layered: makeSheetLikelihood(true),
  single: makeSheetLikelihood(false),
} as const;

/** Where a trial stands against the boundaries: fills the kernel's indexes. */
interface Placing {
  readonly indexes: Float64Array;
  readonly positions: Float64Array;
  readonly spread: number;
}

function place(
  trial: PreparedTrial,
  parameters: Float64Array,
  { indexes, positions, spread }: Placing,
  shift = 0,
): void {
  const latent = trial.lnForce + shiftBy(parameters, trial.by) - (parameters[P.threshold] as number) + shift;
  for (let edge = 0; edge < indexes.length; edge++) {
    indexes[edge] = (latent - (positions[edge] as number)) / spread;
  }
}

/**
 * Weighted likelihoods are power priors: evidence from elsewhere counts as a fraction of a trial.
 * Source: Ibrahim and Chen 2000, Power prior distributions for regression models, Statistical Science 15.
 */
function makeSheetLikelihood(isLayered: boolean): SheetLikelihood {
  const grades = gradesOfStack(isLayered);
  const kernels = CARELESSNESS.map((carelessness) =>
    makeOrdinalKernel(FAST_PROBIT, grades.length, misjudgingMatrix(grades.length, carelessness)),
  );
  const indexes = new Float64Array(grades.length - 1);
  const placingAt = (parameters: Float64Array): Placing => ({
    indexes,
    positions: boundaryPositions(parameters),
    spread: Math.exp(parameters[P.spread] as number),
  });
  return {
    grades,
    prepare: (trial, readers = {}) => prepareTrial(trial, grades, readers),
    value: (trials, parameters) => {
      const placing = placingAt(parameters);
      let sum = 0;
      for (const trial of trials) {
        place(trial, parameters, placing);
        sum += weightOf(trial) * kernelOf(kernels, trial).logChance(indexes, trial.seen, trial.last);
      }
      return sum;
    },
    exactValue: (loads, parameters) => {
      const placing = placingAt(parameters);
      let sum = 0;
      for (const load of loads) sum += valueBatch(load, parameters, placing, kernels);
      return sum;
    },
    derive: (trials, parameters, score, information) =>
      deriveTrials(trials, parameters, kernels, indexes, { score, information }),
  };
}

/** Log likelihood of one load: a cut by itself, or cells whose shared shift is integrated out. */
function valueBatch(
  load: readonly PreparedTrial[],
  parameters: Float64Array,
  placing: Placing,
  kernels: readonly OrdinalKernel[],
): number {
  const [first] = load;
  if (load.length === 1 && first) {
    place(first, parameters, placing);
    return first.weight * kernelOf(kernels, first).logChance(placing.indexes, first.seen, first.last);
  }
  const own = { ...placing, spread: placing.spread * OWN_SPREAD };
  let chance = 0;
  for (const [node, weight] of BATCH_NODES) {
    let logChance = 0;
    for (const cell of load) {
      place(cell, parameters, own, node * placing.spread * BATCH_SPREAD);
      logChance += cell.weight * kernelOf(kernels, cell).logChance(own.indexes, cell.seen, cell.last);
    }
    chance += weight * Math.exp(logChance);
  }
  return Math.log(Math.max(chance, PROBABILITY_FLOOR));
}

function deriveTrials(
  trials: readonly PreparedTrial[],
  parameters: Float64Array,
  kernels: readonly OrdinalKernel[],
  indexes: Float64Array,
  { score, information }: { readonly score: Float64Array; readonly information: SquareMatrix },
): number {
  const { positions, gradient } = sheetBoundaries(parameters);
  const spread = Math.exp(parameters[P.spread] as number);
  const size = parameters.length;
  const slopes = gradient.map((change) => -change / spread);
  for (let edge = 0; edge < indexes.length; edge++) slopes[edge * size + P.threshold] = -1 / spread;
  let sum = 0;
  for (const trial of trials) {
    place(trial, parameters, { indexes, positions, spread });
    const weight = weightOf(trial);
    const kernel = kernelOf(kernels, trial);
    sum += weight * kernel.observe(indexes, trial.seen, trial.last);
    for (let edge = 0; edge < indexes.length; edge++) {
      if (isSilent(kernel, edge)) continue;
      const row = edge * size;
      slopes[row + P.spread] = -(indexes[edge] as number);
      slopes[row + P.passes] = trial.by.passes / spread;
      slopes[row + P.wear] = trial.by.wear / spread;
      slopes[row + P.speed] = trial.by.speed / spread;
    }
    addThrough(slopes, kernel, weight, score, information);
  }
  mirror(information, size);
  return sum;
}

function kernelOf(kernels: readonly OrdinalKernel[], { kernel }: PreparedTrial): OrdinalKernel {
  return kernels[kernel] as OrdinalKernel;
}

function weightOf({ weight, load }: PreparedTrial): number {
  return load === undefined ? weight : weight * CELL_WEIGHT;
}

function prepareTrial(trial: Trial, grades: readonly DepthGrade[], readers: Readers): PreparedTrial {
  const seen = grades.indexOf(trial.grade);
  if (seen < 0)
    throw new AppError('badInput', `this sheet has no grade ${trial.grade}; it shows ${grades.join(', ')}`);
  if (!(trial.forceGf > 0)) throw new AppError('badInput', `force ${trial.forceGf} gf is not above 0`);
  return {
    lnForce: Math.log(trial.forceGf),
    by: effectMultipliers(trial),
    seen,
    last: Math.max(seen, grades.indexOf(trial.upTo ?? trial.grade)),
    weight: trial.weight ?? 1,
    load: trial.load,
    kernel: nearestReading(readers[trial.reader ?? ''] ?? 1),
  };
}

/** An edge that says less than this of a trial says nothing: the force is far from it. */
const SILENT = 1e-12;

function isSilent({ edgeScore, edgeInformation }: OrdinalKernel, edge: number): boolean {
  const heard = edgeInformation[edge * edgeScore.length + edge] as number;
  return heard < SILENT && Math.abs(edgeScore[edge] as number) < SILENT;
}

/**
 * Adds weight Jᵀ s, and weight Jᵀ W J to the lower triangle alone, for the slopes J (edge x parameter). Edges that say
 * nothing are passed over.
 */
function addThrough(
  slopes: Float64Array,
  kernel: OrdinalKernel,
  weight: number,
  score: Float64Array,
  information: SquareMatrix,
): void {
  const { edgeScore, edgeInformation } = kernel;
  const size = score.length;
  const edges = edgeScore.length;
  for (let a = 0; a < edges; a++) {
    if (isSilent(kernel, a)) continue;
    const row = a * size;
    const pull = weight * (edgeScore[a] as number);
    for (let j = 0; j < size; j++) score[j] = (score[j] as number) + pull * (slopes[row + j] as number);
    for (let b = 0; b < edges; b++) {
      const both = weight * (edgeInformation[a * edges + b] as number);
      if (Math.abs(both) >= SILENT) addProduct(information, slopes, row, b * size, both, size);
    }
  }
}

/** Adds amount · x yᵀ for two rows x, y of slopes to the lower triangle. */
function addProduct(
  into: SquareMatrix,
  slopes: Float64Array,
  x: number,
  y: number,
  amount: number,
  size: number,
): void {
  for (let j = 0; j < size; j++) {
    const factor = amount * (slopes[x + j] as number);
    if (factor === 0) continue;
    const row = j * size;
    for (let k = 0; k <= j; k++)
      into[row + k] = (into[row + k] as number) + factor * (slopes[y + k] as number);
  }
}

/** The upper triangle from the lower. */
function mirror(matrix: SquareMatrix, size: number): void {
  for (let j = 0; j < size; j++) {
    for (let k = 0; k < j; k++) matrix[k * size + j] = matrix[j * size + k] as number;
  }
}
