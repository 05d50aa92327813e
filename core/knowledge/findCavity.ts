import { itemAt } from '#core/collections/itemAt.ts';
import {
  bladeEffect,
  bladeKinds,
  bladeOf,
  guessedMachines,
  levelsOf,
  listSharedEffects,
  machineOf,
  SHAPE_EFFECTS,
  type SharedEffects,
} from '#core/knowledge/sharedEffects.ts';
import type { EvidenceSheet, SheetPlace } from '#core/knowledge/evidence.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import { eliminateOwn, scatter } from '#core/knowledge/eliminateOwn.ts';
import { deriveMaterial, localOf, mapMaterial } from '#core/knowledge/materialFit.ts';
import { choleskyOf, type SquareMatrix } from '#core/threshold/numerics/cholesky.ts';
import { solveStep } from '#core/threshold/numerics/fisherScoring.ts';
import type { Priors } from '#core/threshold/thresholdPriors.ts';

/**
 * What is learnt from other sheets is widened by this factor on its standard deviation: truths are not the model,
 * and without it nine intervals in ten would cover clearly less often (see the referee in docs).
 */
const LEARNT_INFLATION = 1.15;
/** What is learnt of the shape of sheets counts for less: the edges of true sheets are not quite those of the model. */
const SHAPE_INFLATION = 1.5;
/** Everything seen of one material, the asked place included. */
export interface Relatives {
  /** What the knowledge has learnt from already, and what has to be taken out of it. */
  readonly learnt: readonly EvidenceSheet[];
  /** What stands in the book now. */
  readonly all: readonly EvidenceSheet[];
}

/** Mean and information of some effects. */
export interface Gaussian {
  readonly mean: Float64Array;
  readonly information: SquareMatrix;
}

/**
 * What is known of the shared effects without the asked material: its own trials taken out, the rest widened.
 *
 * @example findCavity(place, null, { learnt: [], all: [] }, COMMON_PRIORS).shared.mean.length === listed.names.length // true
 */
export function findCavity(
  place: SheetPlace,
  knowledge: Knowledge | null,
  family: Relatives,
  priors: Priors,
): { readonly sharedEffects: SharedEffects; readonly shared: Gaussian } {
  const sharedEffects = effectsOf(place, knowledge, [...family.learnt, ...family.all], priors);
  const learnt = learntAbout(sharedEffects, knowledge);
  const known = new Set(knowledge?.names);
  // A fit from before kinds of blade were told apart put these trials in without one.
  const taught = family.learnt.map((sheet) =>
    known.has(bladeEffect(sheet.bladeKind ?? '')) ? sheet : { ...sheet, bladeKind: '' },
  );
  const { mean, information } = takeOut(taught, sharedEffects, learnt, knowledge, priors);
  const shifted = sharedEffects.names.map((name, j) => itemAt(mean, j) + (knowledge?.shift?.[name] ?? 0));
  return { sharedEffects, shared: { mean: Float64Array.from(shifted), information } };
}

function effectsOf(
  place: SheetPlace,
  knowledge: Knowledge | null,
  family: readonly EvidenceSheet[],
  priors: Priors,
): SharedEffects {
  const known = (knowledge?.names ?? []).flatMap((name) => machineOf(name) ?? []);
  const ids = new Set([...known, place.machineId, ...family.map(({ machineId }) => machineId)]);
  const guessed = guessedMachines([place, ...family]);
  const learnt = (knowledge?.names ?? []).flatMap((name) => levelsOf(name) ?? []);
  const knownKinds = (knowledge?.names ?? []).map((name) => ({ bladeKind: bladeOf(name) ?? '' }));
  return listSharedEffects(
    [...ids].sort((a, b) => a - b),
    priors,
    new Set([...guessed, ...learnt]),
    bladeKinds([place, ...family, ...knownKinds]),
  );
}

/** The knowledge on this sharedEffects; effects it does not know yet stand at their prior. */
function learntAbout(sharedEffects: SharedEffects, knowledge: Knowledge | null): Gaussian {
  const size = sharedEffects.names.length;
  const mean = Float64Array.from(sharedEffects.mean);
  const information = new Float64Array(size * size);
  const known = new Set(knowledge?.names);
  sharedEffects.names.forEach((name, j) => {
    if (!known.has(name)) information[j * size + j] = 1 / (sharedEffects.sd[j] as number) ** 2;
  });
  if (!knowledge) return { mean, information };
  const places = knowledge.names.map((name) => sharedEffects.places.get(name) as number);
  places.forEach((row, j) => {
    mean[row] = knowledge.mean[j] as number;
    places.forEach((column, k) => {
      information[row * size + column] = knowledge.information[j * places.length + k] as number;
    });
  });
  return { mean, information };
}

/** Takes what a material's trials said out of what was learnt, and widens the rest. */
function takeOut(
  family: readonly EvidenceSheet[],
  sharedEffects: SharedEffects,
  learnt: Gaussian,
  knowledge: Knowledge | null,
  priors: Priors,
): Gaussian {
  const taught = family.filter(({ trials }) => trials.length > 0);
  if (taught.length === 0) return widen(learnt, sharedEffects);
  // The own effects stand where the fit left them, not where they would climb to by themselves: contradicting grades can
  // have two peaks, and what is taken out must be what was put in. What the fit did not hold cannot be taken out.
  const known = knowledge?.own[String(taught[0]?.materialId)];
  if (!known) return widen(learnt, sharedEffects);
  const material = mapMaterial(taught, sharedEffects, priors, knowledge.readers);
  const own = Float64Array.from(material.ownNames, (name) => known[name] ?? 0);
  const said = eliminateOwn(material, deriveMaterial(material, localOf(material.touched, learnt.mean, own)));
  const score = new Float64Array(learnt.mean.length);
  const information = Float64Array.from(learnt.information);
  scatter(said, material.touched, score, information, -1);
  if (!choleskyOf(information, score.length)) return widen(learnt, sharedEffects);
  const shift = solveStep(information, score);
  return widen(
    { mean: learnt.mean.map((value, j) => value + (shift[j] as number)), information },
    sharedEffects,
  );
}

/**
 * Widens what was learnt, but never beyond the prior: with precision Λ = Λ0 + learnt, the learnt part counts
 * 1 / inflation² and the prior fully.
 */
function widen({ mean, information }: Gaussian, sharedEffects: SharedEffects): Gaussian {
  const size = mean.length;
  const shapes = new Set<string>(SHAPE_EFFECTS);
  const kept = sharedEffects.names.map((name) => 1 / (shapes.has(name) ? SHAPE_INFLATION : LEARNT_INFLATION));
  const widened = information.map(
    (value, index) => value * (kept[Math.floor(index / size)] as number) * (kept[index % size] as number),
  );
  for (let j = 0; j < size; j++) {
    const prior = 1 / (sharedEffects.sd[j] as number) ** 2;
    widened[j * size + j] = (widened[j * size + j] as number) + (1 - (kept[j] as number) ** 2) * prior;
  }
  return { mean, information: widened };
}
