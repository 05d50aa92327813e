import { itemAt } from '#core/collections/itemAt.ts';
import { listSharedEffects } from '#core/knowledge/sharedEffects.ts';
import { designSheet } from '#core/knowledge/designSheet.ts';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { drawNormal, type Random } from '#core/random/seededRandom.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { Layer } from '#core/stack/layer.ts';
import type { Family } from '#core/stack/families/families.ts';
import { shiftBy, effectMultipliers } from '#core/threshold/sheetModel/latentShift.ts';
import { sheetBoundaries } from '#core/threshold/sheetModel/sheetBoundaries.ts';
import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import { COMMON_PRIORS } from '#core/threshold/thresholdPriors.ts';

/** Only for tests: a measured layer. */
export const layer = (role: Layer['role'], caliperUm: number): Layer => ({
  role,
  caliperUm,
  isMeasured: true,
});
const STACKS: Readonly<Partial<Record<Family, readonly Layer[]>>> = {
  printableVinyl: [layer('face', 85), layer('adhesive', 25), layer('liner', 130)],
  plainVinyl: [layer('face', 72), layer('adhesive', 22), layer('liner', 125)],
  cardstock: [layer('body', 280)],
};
const FAMILIES = Object.keys(STACKS) as readonly (keyof typeof STACKS)[];

/** Only for tests: by how much machines and families are off. */
export interface Truth {
  readonly machines: readonly number[];
  readonly families: Readonly<Partial<Record<Family, number>>>;
}

/** Only for tests. A book written by the model itself: machines and families off by known amounts, every sheet by its own. */
export function writeBook(sheets: number, truth: Truth, random: Random): readonly EvidenceSheet[] {
  return Array.from({ length: sheets }, (_, index): EvidenceSheet => {
    const family = itemAt(FAMILIES, index % FAMILIES.length);
    const machineId = 1 + (Math.floor(index / FAMILIES.length) % truth.machines.length);
    const place = {
      traits: { family, stack: STACKS[family] ?? [], darkness: 0 },
      materialId: index,
      machineId,
      condition: 'bare',
      lot: '',
      colour: '',
    };
    const parameters = trueParameters(place, truth, random);
    const { positions } = sheetBoundaries(parameters);
    const grades: readonly DepthGrade[] =
      parameters.length === 12 ? [0, 1, 2, 3, 4, 5, 6, 7, 8] : [0, 1, 2, 7, 8];
    const trials = [-0.5, -0.15, 0, 0.2, 0.4, 0.8].map((offset, place) => {
      const conditions = { passes: 1 + (place % 2), speedMmPerS: 100, bladeMetres: 40 * place };
      const forceGf = Math.exp((parameters[P.threshold] ?? NaN) + offset);
      const latent =
        Math.log(forceGf) +
        shiftBy(parameters, effectMultipliers(conditions)) -
        (parameters[P.threshold] ?? NaN);
      const noisy = latent + 0.055 * drawNormal(random);
      return {
        ...conditions,
        forceGf,
        grade: itemAt(grades, positions.filter((edge) => noisy > edge).length),
      };
    });
    return { ...place, trials };
  });
}

function trueParameters(place: Omit<EvidenceSheet, 'trials'>, truth: Truth, random: Random): Float64Array {
  const sharedEffects = listSharedEffects([1, 2, 3], COMMON_PRIORS);
  const design = designSheet(place, COMMON_PRIORS);
  const parameters = Float64Array.from(design.constant);
  for (const { parameter, effect, amount } of design.shared) {
    const mean = sharedEffects.mean[sharedEffects.places.get(effect) ?? -1] ?? NaN;
    parameters[parameter] = (parameters[parameter] ?? NaN) + amount * mean;
  }
  parameters[P.threshold] =
    (parameters[P.threshold] ?? NaN) +
    (truth.families[place.traits.family] ?? 0) -
    itemAt(truth.machines, place.machineId - 1) +
    0.15 * drawNormal(random);
  return parameters;
}
