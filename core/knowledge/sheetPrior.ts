import { findCavity, type Gaussian, type Relatives } from '#core/knowledge/findCavity.ts';
import { levelsEffect, type SharedEffects } from '#core/knowledge/sharedEffects.ts';
import { isSamePlace, type SheetPlace } from '#core/knowledge/evidence.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import { withSpreads } from '#core/knowledge/withSpreads.ts';
import {
  deriveMaterial,
  mapMaterial,
  parametersOf,
  valueMaterial,
  type MaterialEvidence,
} from '#core/knowledge/materialFit.ts';
import {
  choleskyOf,
  invertCholesky,
  solveCholesky,
  type SquareMatrix,
} from '#core/threshold/numerics/cholesky.ts';
import { fisherScoring } from '#core/threshold/numerics/fisherScoring.ts';
import { derivePrior, logPrior, type NormalPrior } from '#core/threshold/numerics/normalPrior.ts';
import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import {
  COMMON_PRIORS,
  GUESSED_LEVELS,
  NEAR_MAT,
  ODD_SHEET,
  type Priors,
} from '#core/threshold/thresholdPriors.ts';
import type { SheetBelief } from '#core/threshold/trial.ts';

/** A step below this ends the search for the peak, in ln force. */
const SMALLEST_STEP = 1e-6;
/** A guess at levels that is about right is off by so much, in ln force. */
const ABOUT_RIGHT = 0.25;

const NO_RELATIVES: Relatives = { learnt: [], all: [] };

/**
 * What is believed of one sheet on one machine before its own trials: from the priors, from every other material of
 * the book, and from what else was seen of this material.
 *
 * The knowledge holds the material's own trials too. They are taken out first (its share of the information is
 * subtracted, which leaves the cavity of expectation propagation), so that no cut is counted twice.
 *
 * @param family what was seen of the same material; the place's own trials are left to the model of the sheet
 * @returns mean and precision in the order of LAYERED_PARAMETERS or SINGLE_PARAMETERS
 * @throws AppError `badInput` when the stack cannot be
 * Source: Minka 2001, Expectation propagation for approximate Bayesian inference, UAI, section 3.
 * @example Math.exp(sheetPrior(place, null).mean[0]) // 55.87
 */
export function sheetPrior(
  place: SheetPlace,
  knowledge: Knowledge | null,
  family: Relatives = NO_RELATIVES,
  priors: Priors = COMMON_PRIORS,
): SheetBelief {
  return sheetPriorInDetail(place, knowledge, family, priors).belief;
}

/** One effect on where the face comes free (or a single layer parts), in ln force. */
export interface ThresholdEffect {
  readonly effect: string;
  /** What it adds, with its standard deviation. */
  readonly adds: number;
  readonly sd: number;
}

/**
 * {@link sheetPrior}, with what each effect adds to the threshold beside the family's usual force.
 *
 * @example sheetPriorInDetail(place, null).belief.mean.length // 12
 */
export function sheetPriorInDetail(
  place: SheetPlace,
  knowledge: Knowledge | null,
  family: Relatives = NO_RELATIVES,
  believed: Priors = COMMON_PRIORS,
): { readonly belief: SheetBelief; readonly effects: readonly ThresholdEffect[] } {
  const isUnknownGuess =
    place.isScaleGuessed === true &&
    !knowledge?.names.includes(levelsEffect(place.machineId)) &&
    !family.all.some(({ machineId, trials }) => machineId === place.machineId && trials.length > 0);
  const priors = withSpreads(isUnknownGuess ? guessing(believed) : believed, knowledge?.spreads ?? null);
  const { sharedEffects, shared } = findCavity(place, knowledge, family, priors);
  const readers = knowledge?.nextReaders;
  const others = family.all.filter((sheet) => !isSamePlace(sheet, place));
  const material = mapMaterial([{ ...place, trials: [] }, ...others], sharedEffects, priors, readers);
  const joint = teachLocal(material, marginalOf(shared, material.touched));
  const covariance = invertOf(joint.information, joint.mean.length);
  return {
    belief: {
      ...readOff(material, joint.mean, covariance, priors),
      tail: isUnknownGuess ? GUESSED_LEVELS : ODD_SHEET,
      nearMat: NEAR_MAT,
      readers,
    },
    effects: listEffects(material, joint.mean, covariance, sharedEffects),
  };
}

/** While nothing was cut on a machine, the guess at its levels is taken as about right; its tail says that it may not be. */
function guessing(priors: Priors): Priors {
  const { beliefs } = priors;
  return { ...priors, beliefs: { ...beliefs, levels: { ...beliefs.levels, sd: ABOUT_RIGHT } } };
}

function listEffects(
  material: MaterialEvidence,
  mean: Float64Array,
  covariance: SquareMatrix,
  sharedEffects: SharedEffects,
): readonly ThresholdEffect[] {
  const { parameters, places, amounts } = (material.sheets[0] as MaterialEvidence['sheets'][number]).terms;
  const size = mean.length;
  const nameOf = (place: number) =>
    place < material.touched.length
      ? (sharedEffects.names[material.touched[place] as number] as string)
      : `own:${material.ownNames[place - material.touched.length] as string}`;
  return Array.from(parameters, (parameter, term) => ({ parameter, term }))
    .filter(({ parameter }) => parameter === P.threshold)
    .map(({ term }) => {
      const place = places[term] as number;
      const amount = amounts[term] as number;
      return {
        effect: nameOf(place),
        adds: amount * (mean[place] as number),
        sd: Math.abs(amount) * Math.sqrt(covariance[place * size + place] as number),
      };
    });
}

/** Mean and precision of the touched effects alone. */
function marginalOf({ mean, information }: Gaussian, touched: readonly number[]): NormalPrior {
  const size = mean.length;
  const lower = choleskyOf(information, size);
  if (!lower) throw new Error('what was learnt has a proper prior');
  const count = touched.length;
  const covariance = new Float64Array(count * count);
  touched.forEach((place, j) => {
    const unit = new Float64Array(size);
    unit[place] = 1;
    const column = solveCholesky(lower, size, unit);
    touched.forEach((other, k) => (covariance[k * count + j] = column[other] as number));
  });
  return {
    mean: Float64Array.from(touched, (place) => mean[place] as number),
    precision: invertOf(covariance, count),
  };
}

/** Lets the other places of the same material speak. */
function teachLocal(material: MaterialEvidence, shared: NormalPrior): Gaussian {
  const first = material.touched.length;
  const size = first + material.ownNames.length;
  const start = new Float64Array(size);
  start.set(shared.mean);
  const prior: NormalPrior = { mean: Float64Array.from(start), precision: new Float64Array(size * size) };
  for (let j = 0; j < first; j++) {
    for (let k = 0; k < first; k++) prior.precision[j * size + k] = shared.precision[j * first + k] as number;
  }
  const fit = fisherScoring(
    {
      value: (local) => valueMaterial(material, local) + logPrior(prior, local),
      derive: (local) => {
        const { score, information } = deriveMaterial(material, local);
        const priorScore = new Float64Array(size);
        const priorInformation = new Float64Array(size * size);
        derivePrior(prior, local, priorScore, priorInformation);
        return {
          score: score.map((value, j) => value + (priorScore[j] as number)),
          information: information.map((value, index) => value + (priorInformation[index] as number)),
        };
      },
    },
    start,
    SMALLEST_STEP,
  );
  return { mean: fit.estimate, information: fit.information };
}

/** The parameters of the first sheet, as a normal: they are linear in the effects. */
function readOff(
  material: MaterialEvidence,
  mean: Float64Array,
  covarianceOfEffects: SquareMatrix,
  priors: Priors,
): NormalPrior {
  const asked = material.sheets[0];
  if (!asked) throw new Error('the asked place comes first');
  const count = asked.constant.length;
  const size = mean.length;
  const covariance = new Float64Array(count * count);
  const { parameters, places, amounts } = asked.terms;
  for (let one = 0; one < parameters.length; one++) {
    for (let other = 0; other < parameters.length; other++) {
      const index = (parameters[one] as number) * count + (parameters[other] as number);
      const shared = covarianceOfEffects[
        (places[one] as number) * size + (places[other] as number)
      ] as number;
      covariance[index] =
        (covariance[index] as number) + (amounts[one] as number) * (amounts[other] as number) * shared;
    }
  }
  covariance[P.spread * count + P.spread] = priors.beliefs.spread.sd ** 2;
  return { mean: parametersOf(asked, mean), precision: invertOf(covariance, count) };
}

function invertOf(matrix: SquareMatrix, size: number): SquareMatrix {
  const lower = choleskyOf(matrix, size);
  if (!lower) throw new Error('a covariance with proper priors is positive definite');
  return invertCholesky(lower, size);
}
