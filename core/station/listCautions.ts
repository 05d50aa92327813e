import { factsOf } from '#core/stack/families/families.ts';
import type { LoadedSheet, Mat, Station } from '#core/station/station.ts';
import { wearOfMat } from '#core/station/wearOfMat.ts';
import { fitTack, tackIndex } from '#core/wear/tackIndex.ts';

/** One thing to mind before cutting, with its kind. */
export interface Caution {
  readonly kind: 'material' | 'blade' | 'mat' | 'hands';
  readonly text: string;
}

/** A standard mat wants a roller on every load from here on. Common practice, no source (20 to 30 uses). */
const ROLL_DOWN_FROM_USES = 20;
/** From this share of its usual life on, a blade is watched. Common practice, no source. */
const WATCH_BLADE_FROM = 0.8;

/**
 * What to mind at a station before cutting, the most particular first; always ends with the hands.
 *
 * @example listCautions({ ...station, loaded: null }, new Date('2027-01-01')).length // 1
 */
export function listCautions({ machine, blade, mat, loaded }: Station, now: Date): readonly Caution[] {
  const cautions: Caution[] = loaded ? listSheetCautions(loaded) : [];
  if (machine.kind === 'matFed' && !mat)
    cautions.push({ kind: 'mat', text: 'No mat is set at this station.' });
  if (mat && mat.uses >= ROLL_DOWN_FROM_USES) {
    cautions.push({ kind: 'mat', text: `Mat ${mat.number} has ${mat.uses} loads: roll the sheet down.` });
  }
  if (mat && loaded) cautions.push(...judgeMat(mat, loaded, now));
  if (!blade)
    cautions.push({ kind: 'blade', text: 'No blade is set at this station: offset and wear are guessed.' });
  if (blade && blade.travelMetres >= WATCH_BLADE_FROM * blade.lifeMetres) {
    const metres = `${blade.travelMetres.toFixed(0)} of about ${blade.lifeMetres} m`;
    cautions.push({ kind: 'blade', text: `Blade ${blade.number} is at ${metres}: look for fuzzy edges.` });
  }
  cautions.push({ kind: 'hands', text: 'Power off before a hand goes near the blade; never feel the tip.' });
  return cautions;
}

/** What the sheet itself wants minded: its maker's words, mirroring, its lot, and what it must never be used for. */
function listSheetCautions({ material, lot }: LoadedSheet): Caution[] {
  const { cautions, details } = material;
  const note = details.lots.find(({ code }) => code === lot)?.note;
  const isSaid = cautions.some((text) => /mirror/i.test(text));
  const texts = [
    ...cautions,
    details.isMirrored && !isSaid ? 'Cut it mirrored.' : '',
    note ? `Lot ${lot}: ${note}.` : '',
    ...details.neverFor.map((use) => `Never for ${use}.`),
  ];
  return texts.filter(Boolean).map((text) => ({ kind: 'material', text }));
}

/** Whether the mat suits the sheet, by its tack index, and whether its grooves do. */
function judgeMat(mat: Mat, { material }: LoadedSheet, now: Date): Caution[] {
  const index = tackIndex(wearOfMat(mat, now));
  const fit = fitTack(index, material.family);
  const found: Caution[] = [];
  const name = factsOf(material.family).name;
  if (fit === 'slips') {
    found.push({
      kind: 'mat',
      text: `Mat ${mat.number} is weak (tack ${index}) for ${name}: it may slip. Wash or change it.`,
    });
  }
  if (fit === 'tears') {
    found.push({
      kind: 'mat',
      text: `Mat ${mat.number} is strong (tack ${index}) for ${name}: peel the mat from the sheet, or take a lighter one.`,
    });
  }
  if (mat.hasGrooves)
    found.push({ kind: 'mat', text: `Mat ${mat.number} has deep grooves: not for fine work.` });
  return found;
}
