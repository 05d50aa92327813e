import type { SharedEffects } from '#core/knowledge/sharedEffects.ts';
import { designSheet } from '#core/knowledge/designSheet.ts';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import {
  choleskyOf,
  dot,
  logDetOf,
  solveCholesky,
  solveLowerInto,
  solveTransposed,
  type SquareMatrix,
} from '#core/threshold/numerics/cholesky.ts';
import {
  SHEET_LIKELIHOODS,
  type PreparedTrial,
  type SheetLikelihood,
} from '#core/threshold/sheetModel/sheetLikelihood.ts';
import type { Readers } from '#core/threshold/trial.ts';
import type { Priors } from '#core/threshold/thresholdPriors.ts';

/** The terms of a map, side by side: parameter += amount * local[place]. */
export interface MappedTerms {
  readonly parameters: Int32Array;
  readonly places: Int32Array;
  readonly amounts: Float64Array;
}

/** A sheet of a material with its map worked out to positions: first the sharedEffects's effects, then the block's. */
interface MappedSheet {
  readonly likelihood: SheetLikelihood;
  readonly trials: readonly PreparedTrial[];
  readonly constant: Float64Array;
  readonly terms: MappedTerms;
}

/** All sheets of one material, seen from the few effects that they touch. */
export interface MaterialEvidence {
  /** Positions in the sharedEffects of the shared effects that its sheets touch; the local vector starts with them. */
  readonly touched: readonly number[];
  /** Names of the material's own effects, after the touched ones in the local vector. */
  readonly ownNames: readonly string[];
  readonly ownPrecision: Float64Array;
  readonly sheets: readonly MappedSheet[];
}

/**
 * Works out the map of a material's sheets. @param sheets all of one material, with or without trials
 *
 * @example mapMaterial([{ ...place, trials }], listed, COMMON_PRIORS).touched.length > 10 // true
 */
export function mapMaterial(
  sheets: readonly EvidenceSheet[],
  sharedEffects: SharedEffects,
  priors: Priors,
  readers: Readers = {},
): MaterialEvidence {
  const designs = sheets.map((sheet) => designSheet(sheet, priors));
  const touched = [
    ...new Set(designs.flatMap(({ shared }) => shared.map(({ effect }) => placeIn(sharedEffects, effect)))),
  ].sort((a, b) => a - b);
  const own = new Map(designs.flatMap((design) => design.own.map(({ effect, belief }) => [effect, belief])));
  const ownNames = [...own.keys()];
  const localShared = new Map(touched.map((place, index) => [place, index]));
  const localOwn = new Map(ownNames.map((name, index) => [name, touched.length + index]));
  return {
    touched,
    ownNames,
    ownPrecision: Float64Array.from(own.values(), (belief) => 1 / priors.beliefs[belief].sd ** 2),
    sheets: designs.map((design, index) => {
      const likelihood = design.isLayered ? SHEET_LIKELIHOODS.layered : SHEET_LIKELIHOODS.single;
      return {
        likelihood,
        trials: (sheets[index] as EvidenceSheet).trials.map((trial) => likelihood.prepare(trial, readers)),
        constant: design.constant,
        terms: packTerms([
          ...design.shared.map((term) => ({
            ...term,
            place: localShared.get(placeIn(sharedEffects, term.effect)) as number,
          })),
          ...design.own.map((term) => ({ ...term, place: localOwn.get(term.effect) as number })),
        ]),
      };
    }),
  };
}

function packTerms(
  terms: readonly { readonly parameter: number; readonly place: number; readonly amount: number }[],
): MappedTerms {
  return {
    parameters: Int32Array.from(terms, ({ parameter }) => parameter),
    places: Int32Array.from(terms, ({ place }) => place),
    amounts: Float64Array.from(terms, ({ amount }) => amount),
  };
}

function placeIn(sharedEffects: SharedEffects, effect: string): number {
  const place = sharedEffects.places.get(effect);
  if (place === undefined) throw new Error(`the sharedEffects has no effect ${effect}`);
  return place;
}

/**
 * The local vector of a material: the touched effects, then its own.
 *
 * @example localOf([1], Float64Array.of(5, 6), Float64Array.of(7)) // [6, 7]
 */
export function localOf(
  touched: readonly number[],
  sharedEffects: Float64Array,
  own: Float64Array,
): Float64Array {
  const local = new Float64Array(touched.length + own.length);
  touched.forEach((place, index) => (local[index] = sharedEffects[place] as number));
  local.set(own, touched.length);
  return local;
}

/**
 * The parameters of one sheet at a local vector.
 *
 * @example parametersOf(evidence.sheets[0], local).length // 12
 */
export function parametersOf({ constant, terms }: MappedSheet, local: Float64Array): Float64Array {
  const parameters = Float64Array.from(constant);
  const { parameters: targets, places, amounts } = terms;
  for (let term = 0; term < targets.length; term++) {
    const parameter = targets[term] as number;
    parameters[parameter] =
      (parameters[parameter] as number) +
      (amounts[term] as number) * (local[places[term] as number] as number);
  }
  return parameters;
}

/**
 * Log likelihood of a material's trials and log prior of its own effects.
 *
 * @example valueMaterial(evidence, local) < 0 // true
 */
export function valueMaterial(material: MaterialEvidence, local: Float64Array): number {
  let sum = 0;
  for (const sheet of material.sheets) {
    if (sheet.trials.length > 0) sum += sheet.likelihood.value(sheet.trials, parametersOf(sheet, local));
  }
  return sum + ownPrior(material, local);
}

function ownPrior({ touched, ownPrecision }: MaterialEvidence, local: Float64Array): number {
  return ownPrecision.reduce(
    (sum, precision, index) => sum - 0.5 * precision * (local[touched.length + index] as number) ** 2,
    0,
  );
}

/** Gradient and information of a material at a local vector, its own prior included. */
export interface LocalDerivatives {
  readonly score: Float64Array;
  readonly information: SquareMatrix;
}

/**
 * What moves the log posterior of a material: its score and expected information by the local vector.
 *
 * @example deriveMaterial(evidence, local).score.length === local.length // true
 */
export function deriveMaterial(material: MaterialEvidence, local: Float64Array): LocalDerivatives {
  const size = local.length;
  const score = new Float64Array(size);
  const information = new Float64Array(size * size);
  for (const sheet of material.sheets) {
    if (sheet.trials.length > 0) addSheet(sheet, local, score, information);
  }
  const first = material.touched.length;
  material.ownPrecision.forEach((precision, index) => {
    const place = first + index;
    score[place] = (score[place] as number) - precision * (local[place] as number);
    information[place * size + place] = (information[place * size + place] as number) + precision;
  });
  return { score, information };
}

function addSheet(
  sheet: MappedSheet,
  local: Float64Array,
  score: Float64Array,
  information: SquareMatrix,
): void {
  const { terms, constant, likelihood, trials } = sheet;
  const count = constant.length;
  const sheetScore = new Float64Array(count);
  const sheetInformation = new Float64Array(count * count);
  likelihood.derive(trials, parametersOf(sheet, local), sheetScore, sheetInformation);
  const size = score.length;
  const { parameters, places, amounts } = terms;
  for (let one = 0; one < parameters.length; one++) {
    const row = (places[one] as number) * size;
    const amount = amounts[one] as number;
    const from = (parameters[one] as number) * count;
    score[places[one] as number] =
      (score[places[one] as number] as number) + amount * (sheetScore[parameters[one] as number] as number);
    for (let other = 0; other < parameters.length; other++) {
      const index = row + (places[other] as number);
      information[index] =
        (information[index] as number) +
        amount *
          (amounts[other] as number) *
          (sheetInformation[from + (parameters[other] as number)] as number);
    }
  }
}

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
