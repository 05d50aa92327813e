import { groupBy } from '#core/collections/groupBy.ts';
import { itemAt } from '#core/collections/itemAt.ts';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { factorOwn } from '#core/knowledge/eliminateOwn.ts';
import type { Knowledge, Shift } from '#core/knowledge/knowledge.ts';
import {
  deriveMaterial,
  localOf,
  mapMaterial,
  parametersOf,
  type MaterialEvidence,
} from '#core/knowledge/materialFit.ts';
import { guessedMachines, listEffectsOf, SHAPE_EFFECTS } from '#core/knowledge/sharedEffects.ts';
import { withSpreads } from '#core/knowledge/withSpreads.ts';
import { drawNormal, seededRandom, type Random } from '#core/random/seededRandom.ts';
import {
  choleskyOf,
  solveCholesky,
  solveTransposed,
  type SquareMatrix,
} from '#core/threshold/numerics/cholesky.ts';
import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import { COMMON_PRIORS, type BeliefName, type Priors } from '#core/threshold/thresholdPriors.ts';

const SHAPES = new Set<string>(SHAPE_EFFECTS);
/** Draws of each material's own effects: what they leave uncertain is far below what the book does. */
const DRAWS = 64;
/** Draws spread a little wider than the peak's own normal, so that no part of the posterior is missed. */
const WIDER = 1.25;
const STEPS = 4;
/** A step that moves all effects together by less than half a standard deviation ends it. */
const CLOSE_ENOUGH = 0.25;
/** Own effects are brought to their peak in so many steps, none longer than this, in ln force. */
const SETTLING = 3;
const LONGEST_STEP = 0.3;
/** A book with fewer sheets is known by its priors. */
const LEAST_SHEETS = 8;
const SEED = 20261128;

/** What is believed of own effects after the book, over what was believed before: sums over materials. */
export interface OwnMoments {
  /** By belief: how many own effects there are, and the sum of their mean squares in standard deviations. */
  readonly squares: ReadonlyMap<BeliefName, { count: number; sum: number }>;
  /** Of the noise of sheets: its mean distance from the believed one, in standard deviations. */
  readonly noise: { count: number; sum: number };
}

/**
 * How far the shared effects that explain the book best, with every sheet's own effects and noise integrated out, lie from
 * those of the joint peak. A peak takes each sheet for the one most likely; where few cuts of a sheet tell, as on either
 * side of a scarred mat, it puts the edges too close together, the more surely the longer the book.
 *
 * The slope of the marginal likelihood is the mean slope of the complete one over what is believed of the own effects
 * (Fisher's identity), taken here over draws around each material's peak that are weighted by the exact posterior.
 *
 * In a book with machines whose levels nobody weighed only shapes are moved: a guess far off has many peaks, and what
 * sheets want hangs on it.
 *
 * @returns the shift by effect, in its own unit, and how far the own effects spread; `null` for a book too small to say
 * Source: Louis 1982, Finding the observed information matrix when using the EM algorithm, JRSS B 44; Durbin and
 * Koopman 1997, Monte Carlo maximum likelihood estimation for non-Gaussian state space models, Biometrika 84.
 * @example integrateOwn([{ ...place, trials }], fitKnowledge([{ ...place, trials }])) // null
 */
export function integrateOwn(
  book: readonly EvidenceSheet[],
  fitted: Knowledge,
  given: Priors = COMMON_PRIORS,
): { readonly shift: Shift; readonly moments: OwnMoments } | null {
  const sheetsOf = groupBy(book, ({ materialId }) => materialId);
  if (sheetsOf.size < LEAST_SHEETS) return null;
  const priors = withSpreads(given, fitted.spreads);
  const shared = listEffectsOf(book, priors);
  const places = shared.names.map((name) => fitted.names.indexOf(name));
  const isGuessed = guessedMachines(book).size > 0;
  const moved = shared.names.flatMap((name, j) => (!isGuessed || SHAPES.has(name) ? [j] : []));
  const lower = factorAmong(
    moved.map((j) => itemAt(places, j)),
    fitted,
  );
  const peak = Float64Array.from(places, (at) => itemAt(fitted.mean, at));
  const materials = [...sheetsOf].map(([id, sheets]) => {
    const material = mapMaterial(sheets, shared, priors, fitted.readers);
    const known = fitted.own[String(id)] ?? {};
    const own: Float64Array = Float64Array.from(material.ownNames, (name) => known[name] ?? 0);
    return { material, own };
  });
  const mean = Float64Array.from(peak);
  let moments: OwnMoments = { squares: new Map(), noise: { count: 0, sum: 0 } };
  for (let step = 0; step < STEPS; step++) {
    // The same draws in every step: what changes is the effects alone.
    const random = seededRandom(SEED);
    const slope = shared.mean.map((middle, j) => (middle - itemAt(mean, j)) / itemAt(shared.sd, j) ** 2);
    moments = { squares: new Map(), noise: { count: 0, sum: 0 } };
    for (const one of materials) {
      one.own = settle(one.material, mean, one.own);
      addSlope(one.material, mean, one.own, { slope, random, noiseSd: priors.beliefs.spread.sd, moments });
    }
    const steep = Float64Array.from(moved, (j) => itemAt(slope, j));
    const move = solveCholesky(lower, moved.length, steep);
    moved.forEach((j, at) => (mean[j] = itemAt(mean, j) + itemAt(move, at)));
    if (move.reduce((sum, value, at) => sum + value * itemAt(steep, at), 0) < CLOSE_ENOUGH) break;
  }
  const shift = Object.fromEntries(
    moved.map((j) => [itemAt(shared.names, j), itemAt(mean, j) - itemAt(peak, j)]),
  );
  return { shift, moments };
}

/** The information among some effects, factored: the others stay where they are. */
function factorAmong(places: readonly number[], { information, names }: Knowledge): SquareMatrix {
  const among = Float64Array.from({ length: places.length ** 2 }, (_, index) => {
    const row = itemAt(places, Math.floor(index / places.length));
    return itemAt(information, row * names.length + itemAt(places, index % places.length));
  });
  const lower = choleskyOf(among, places.length);
  if (!lower) throw new Error('information with a proper prior is positive definite');
  return lower;
}

function settle(material: MaterialEvidence, mean: Float64Array, from: Float64Array): Float64Array {
  let own = from;
  for (let step = 0; step < SETTLING; step++) {
    const { step: wanted } = factorOwn(
      material,
      deriveMaterial(material, localOf(material.touched, mean, own)),
    );
    own = own.map((value, a) => value + Math.min(LONGEST_STEP, Math.max(-LONGEST_STEP, itemAt(wanted, a))));
  }
  return own;
}

interface Slope {
  readonly slope: Float64Array;
  readonly random: Random;
  /** How much the noise of sheets differs, in ln. */
  readonly noiseSd: number;
  readonly moments: OwnMoments;
}

/** Adds what a material says of the shared effects, averaged over its own effects and the noise of its sheets. */
function addSlope(
  material: MaterialEvidence,
  mean: Float64Array,
  own: Float64Array,
  { slope, random, noiseSd, moments }: Slope,
): void {
  const { touched, ownPrecision } = material;
  const { lower } = factorOwn(material, deriveMaterial(material, localOf(touched, mean, own)));
  const draws = Array.from({ length: DRAWS }, () => {
    const normal = Float64Array.from(own, () => drawNormal(random));
    const off = solveTransposed(lower, own.length, normal);
    const drawn = own.map((value, a) => value + WIDER * itemAt(off, a));
    let noise = 0;
    const { score, value } = scoreAt(material, localOf(touched, mean, drawn), () => {
      const off = drawNormal(random);
      noise += off;
      return noiseSd * off;
    });
    const prior = drawn.reduce((sum, one, a) => sum - 0.5 * itemAt(ownPrecision, a) * one ** 2, 0);
    const proposed = normal.reduce((sum, one) => sum - 0.5 * one ** 2, 0);
    return { score, drawn, noise, logWeight: value + prior - proposed };
  });
  moments.noise.count += material.sheets.filter(({ trials }) => trials.length > 0).length;
  for (const belief of material.ownBeliefs) momentOf(moments, belief).count += 1;
  const most = draws.reduce((highest, { logWeight }) => Math.max(highest, logWeight), -Infinity);
  const weights = draws.map(({ logWeight }) => Math.exp(logWeight - most));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  draws.forEach(({ score, drawn, noise }, draw) => {
    const share = itemAt(weights, draw) / total;
    moments.noise.sum += share * noise;
    drawn.forEach((value, a) => {
      const squares = momentOf(moments, itemAt(material.ownBeliefs, a));
      squares.sum += share * itemAt(ownPrecision, a) * value ** 2;
    });
    touched.forEach((place, j) => (slope[place] = itemAt(slope, place) + share * itemAt(score, j)));
  });
}

function momentOf({ squares }: OwnMoments, belief: BeliefName): { count: number; sum: number } {
  const known = squares.get(belief) ?? { count: 0, sum: 0 };
  (squares as Map<BeliefName, typeof known>).set(belief, known);
  return known;
}

/** Log likelihood of a material's trials, and its slope by the effects that it touches. */
function scoreAt(material: MaterialEvidence, local: Float64Array, drawNoise: () => number) {
  const score = new Float64Array(material.touched.length);
  let value = 0;
  for (const sheet of material.sheets) {
    if (sheet.trials.length === 0) continue;
    const parameters = parametersOf(sheet, local);
    parameters[P.spread] = itemAt(parameters, P.spread) + drawNoise();
    const own = new Float64Array(parameters.length);
    value += sheet.likelihood.derive(sheet.trials, parameters, own, new Float64Array(own.length ** 2));
    const { parameters: targets, places, amounts } = sheet.terms;
    targets.forEach((target, term) => {
      const place = itemAt(places, term);
      if (place < score.length) {
        score[place] = itemAt(score, place) + itemAt(amounts, term) * itemAt(own, target);
      }
    });
  }
  return { score, value };
}
