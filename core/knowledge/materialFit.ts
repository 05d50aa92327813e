import type { SharedEffects } from '#core/knowledge/sharedEffects.ts';
import { designSheet } from '#core/knowledge/designSheet.ts';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import type { SquareMatrix } from '#core/threshold/numerics/cholesky.ts';
import {
  SHEET_LIKELIHOODS,
  type PreparedTrial,
  type SheetLikelihood,
} from '#core/threshold/sheetModel/sheetLikelihood.ts';
import type { Readers } from '#core/threshold/trial.ts';
import type { BeliefName, Priors } from '#core/threshold/thresholdPriors.ts';

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
  /** Which belief each of them starts from. */
  readonly ownBeliefs: readonly BeliefName[];
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
    ownBeliefs: [...own.values()],
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
