import type { Station } from '#core/station/station.ts';

/** One thing to mind before cutting, with its kind. */
export interface Caution {
  readonly kind: 'material' | 'blade' | 'mat' | 'hands';
  readonly text: string;
}

/** A standard mat wants a roller on every load from here on. Common practice, no source (20 to 30 uses). */
const ROLL_DOWN_FROM_USES = 20;
/** From this share of its usual life on, a blade is watched. Common practice, no source. */
const WATCH_BLADE_FROM = 0.8;

/** What to mind at a station before cutting, the most particular first; always ends with the hands. */
export function listCautions({ machine, blade, mat, loaded }: Station): readonly Caution[] {
  const cautions: Caution[] = (loaded?.material.cautions ?? []).map((text) => ({ kind: 'material', text }));
  if (machine.kind === 'matFed' && !mat)
    cautions.push({ kind: 'mat', text: 'No mat is set at this station.' });
  if (mat && mat.uses >= ROLL_DOWN_FROM_USES) {
    cautions.push({ kind: 'mat', text: `Mat ${mat.number} has ${mat.uses} loads: roll the sheet down.` });
  }
  if (!blade)
    cautions.push({ kind: 'blade', text: 'No blade is set at this station: offset and wear are guessed.' });
  if (blade && blade.travelMetres >= WATCH_BLADE_FROM * blade.lifeMetres) {
    const metres = `${blade.travelMetres.toFixed(0)} of about ${blade.lifeMetres} m`;
    cautions.push({ kind: 'blade', text: `Blade ${blade.number} is at ${metres}: look for fuzzy edges.` });
  }
  cautions.push({ kind: 'hands', text: 'Power off before a hand goes near the blade; never feel the tip.' });
  return cautions;
}
