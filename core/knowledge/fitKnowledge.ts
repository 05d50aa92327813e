import { listEffectsOf, type SharedEffects } from '#core/knowledge/sharedEffects.ts';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import type { Knowledge, LearntSpreads, Shift } from '#core/knowledge/knowledge.ts';
import { eliminateOwn, factorOwn, scatter, type Eliminated } from '#core/knowledge/eliminateOwn.ts';
import {
  deriveMaterial,
  localOf,
  mapMaterial,
  valueMaterial,
  type MaterialEvidence,
} from '#core/knowledge/materialFit.ts';
import { startFit, type FitState } from '#core/knowledge/startFit.ts';
import { withSpreads } from '#core/knowledge/withSpreads.ts';
import { choleskyOf, logDetOf } from '#core/threshold/numerics/cholesky.ts';
import { solveStep } from '#core/threshold/numerics/fisherScoring.ts';
import { MODEL_VERSION } from '#core/threshold/sheetModel/sheetModel.ts';
import type { Readers } from '#core/threshold/trial.ts';
import { COMMON_PRIORS, type Priors } from '#core/threshold/thresholdPriors.ts';

const MAX_ITERATIONS = 60;
/**
 * The fit ends when a step moves all shared effects together by less than a tenth of a standard deviation and no own
 * effect stirs: a material that is not at its peak would be taken out of the knowledge wrongly.
 */
/** A step is halved down to these shares of itself, of all effects and of one material's. */
const SHORTEST_STEP = 1e-6;
const SHORTEST_OWN_STEP = 1e-3;
const CLOSE_ENOUGH = 0.01;

/** Own effects that move less than this (in ln force) are left to the common step, until the shared effects stir. */
const CALM = 0.015;
/** Squared distance of a common step, in standard deviations, from which all own effects are looked at again. */
const STIRRING = 4;

export interface FitProgress {
  readonly iteration: number;
  /** By how much the last step raised the log posterior. */
  readonly gain: number;
  /** How far the step went, in standard deviations of the shared effects: the fit ends when it is small. */
  readonly distance: number;
}

interface FitOptions {
  readonly priors?: Priors;
  /** Where to start: the knowledge before the newest trials makes the fit two or three steps long. */
  readonly start?: Knowledge | null;
  /** Spreads learnt before, see learnSpreads; the priors' own when left out. */
  readonly spreads?: LearntSpreads | null;
  /** How carelessly people read, see learnReaders; as usual when left out. */
  readonly readers?: Readers;
  /** How far the best effects lie from the joint peak, see integrateOwn; handed on. */
  readonly shift?: Shift | undefined;
  readonly onProgress?: (progress: FitProgress) => void;
}

/**
 * Learns the effects that sheets share from every trial of a book: the peak of the joint posterior by damped Fisher
 * scoring, with the information around it. A material's own effects speak only through its own trials, so the
 * information has the shape of an arrow; each material's block is eliminated by itself and the cost grows with the
 * number of trials, not with its square.
 *
 * The spread of the noise is held at its prior: a joint peak would shrink it to nothing.
 *
 * @param book all places with trials, in any order
 * @throws AppError `badInput` for a trial no sheet can have made
 * @example fitKnowledge([{ ...place, trials }]).trialCount // 3
 */
export function fitKnowledge(book: readonly EvidenceSheet[], options: FitOptions = {}): Knowledge {
  const { start = null, spreads = null, readers = {}, shift, onProgress } = options;
  const priors = withSpreads(options.priors ?? COMMON_PRIORS, spreads);
  const sharedEffects = listEffectsOf(book, priors);
  const ids = [...new Set(book.map(({ materialId }) => materialId))];
  const grouped = new Map<number, EvidenceSheet[]>(ids.map((id) => [id, []]));
  for (const sheet of book) grouped.get(sheet.materialId)?.push(sheet);
  const materials = ids.map((id) => mapMaterial(grouped.get(id) ?? [], sharedEffects, priors, readers));
  let state: FitState = startFit(start, sharedEffects, ids, materials);
  let value = valueOf(state, sharedEffects, materials);
  const unconverged = materials.map(() => true);
  let iterations = 0;
  for (; iterations < MAX_ITERATIONS; iterations++) {
    const settled = settleOwn(state, materials, unconverged);
    const step = findStep(settled, sharedEffects, materials);
    const moved = searchAlong(
      settled,
      step,
      sharedEffects,
      materials,
      valueOf(settled, sharedEffects, materials),
    );
    const gain = moved.value - value;
    state = moved.state;
    value = moved.value;
    onProgress?.({ iteration: iterations + 1, gain, distance: Math.sqrt(Math.max(0, step.distance)) });
    if (step.distance < CLOSE_ENOUGH && !unconverged.some(Boolean)) break;
    if (step.distance > STIRRING) unconverged.fill(true);
  }
  const { information, blocks } = assemble(state, sharedEffects, materials);
  return {
    model: MODEL_VERSION,
    names: sharedEffects.names,
    mean: [...state.sharedEffects],
    information: [...information],
    own: Object.fromEntries(
      ids.map((id, index) => [
        id,
        Object.fromEntries(
          (materials[index] as MaterialEvidence).ownNames.map((name, a) => [
            name,
            (state.own[index] as Float64Array)[a] as number,
          ]),
        ),
      ]),
    ),
    trialCount: book.reduce((sum, sheet) => sum + sheet.trials.length, 0),
    sheetCount: book.length,
    iterations: iterations + 1,
    logPosterior: value,
    logMarginal: value - marginalCost(sharedEffects, materials, information, blocks),
    spreads,
    readers,
    ...(shift ? { shift } : {}),
  };
}

/**
 * What Laplace's approximation takes off the peak: half the log determinant of the whole information, and the
 * normalising constants of the priors.
 */
function marginalCost(
  sharedEffects: SharedEffects,
  materials: readonly MaterialEvidence[],
  information: Float64Array,
  blocks: readonly Eliminated[],
): number {
  const lower = choleskyOf(information, sharedEffects.names.length);
  if (!lower) throw new Error('information with a proper prior is positive definite');
  const determinant = blocks.reduce(
    (sum, { logDet }) => sum + logDet,
    logDetOf(lower, sharedEffects.names.length),
  );
  const priorSpread =
    sharedEffects.sd.reduce((sum, sd) => sum + Math.log(sd), 0) +
    materials.reduce(
      (sum, { ownPrecision }) =>
        sum - ownPrecision.reduce((a, precision) => a + 0.5 * Math.log(precision), 0),
      0,
    );
  return 0.5 * determinant + priorSpread;
}

function valueOf(
  state: FitState,
  sharedEffects: SharedEffects,
  materials: readonly MaterialEvidence[],
): number {
  let sum = 0;
  state.sharedEffects.forEach((value, index) => {
    sum -= 0.5 * ((value - (sharedEffects.mean[index] as number)) / (sharedEffects.sd[index] as number)) ** 2;
  });
  materials.forEach((material, index) => {
    sum += valueMaterial(
      material,
      localOf(material.touched, state.sharedEffects, state.own[index] as Float64Array),
    );
  });
  return sum;
}

/** Gradient and information of the sharedEffects with every block eliminated, and the blocks to step back through. */
function assemble(state: FitState, sharedEffects: SharedEffects, materials: readonly MaterialEvidence[]) {
  const size = sharedEffects.names.length;
  const score = new Float64Array(size);
  const information = new Float64Array(size * size);
  for (let j = 0; j < size; j++) {
    const precision = 1 / (sharedEffects.sd[j] as number) ** 2;
    score[j] = precision * ((sharedEffects.mean[j] as number) - (state.sharedEffects[j] as number));
    information[j * size + j] = precision;
  }
  const blocks = materials.map((material, index): Eliminated => {
    const local = localOf(material.touched, state.sharedEffects, state.own[index] as Float64Array);
    const eliminated = eliminateOwn(material, deriveMaterial(material, local));
    scatter(eliminated, material.touched, score, information);
    return eliminated;
  });
  return { score, information, blocks };
}

/** A step of the whole state, and how far it goes in standard deviations of the shared effects, squared. */
interface Step extends FitState {
  readonly distance: number;
}

function findStep(
  state: FitState,
  sharedEffects: SharedEffects,
  materials: readonly MaterialEvidence[],
): Step {
  const { score, information, blocks } = assemble(state, sharedEffects, materials);
  const step = solveStep(information, score);
  return {
    distance: step.reduce((sum, value, j) => sum + value * (score[j] as number), 0),
    sharedEffects: step,
    own: materials.map(({ touched }, index) =>
      (blocks[index] as Eliminated).stepOwn(Float64Array.from(touched, (place) => step[place] as number)),
    ),
  };
}

/** Halves the step until the posterior rises; a full step is taken back by half where that is better still. */
function searchAlong(
  from: FitState,
  step: FitState,
  sharedEffects: SharedEffects,
  materials: readonly MaterialEvidence[],
  before: number,
): { readonly state: FitState; readonly value: number } {
  const reach = (share: number) => {
    const state: FitState = {
      sharedEffects: from.sharedEffects.map((value, j) => value + share * (step.sharedEffects[j] as number)),
      own: from.own.map((own, index) =>
        own.map((value, a) => value + share * ((step.own[index] as Float64Array)[a] as number)),
      ),
    };
    return { state, value: valueOf(state, sharedEffects, materials) };
  };
  let best = reach(1);
  for (let share = 0.5; share > SHORTEST_STEP; share /= 2) {
    const shorter = reach(share);
    const isBetter = shorter.value > best.value;
    if (isBetter) best = shorter;
    if (best.value >= before && !isBetter) return best;
  }
  return best.value >= before ? best : { state: from, value: before };
}

/**
 * Moves each material's own effects towards their peak while the shared ones stay. Without it one material whose
 * grades contradict each other would hold back the step of all.
 */
function settleOwn(
  state: FitState,
  materials: readonly MaterialEvidence[],
  unconverged: boolean[],
): FitState {
  return {
    sharedEffects: state.sharedEffects,
    own: materials.map((material, index) => {
      const own = state.own[index] as Float64Array;
      if (!unconverged[index]) return own;
      const moved = stepOwn(material, state.sharedEffects, own);
      unconverged[index] = moved.some((value, a) => Math.abs(value - (own[a] as number)) > CALM);
      return moved;
    }),
  };
}

function stepOwn(material: MaterialEvidence, shared: Float64Array, own: Float64Array): Float64Array {
  const at = (candidate: Float64Array) => localOf(material.touched, shared, candidate);
  const step = factorOwn(material, deriveMaterial(material, at(own))).step;
  const before = valueMaterial(material, at(own));
  for (let share = 1; share > SHORTEST_OWN_STEP; share /= 2) {
    const moved = own.map((value, a) => value + share * (step[a] as number));
    if (valueMaterial(material, at(moved)) >= before) return moved;
  }
  return own;
}
