import type { Knowledge } from '#core/knowledge/knowledge.ts';
import { localOf, valueMaterial, type MaterialEvidence } from '#core/knowledge/materialFit.ts';
import { levelsOf, type SharedEffects } from '#core/knowledge/sharedEffects.ts';

/** Where the fit stands: the shared effects, and each material's own ones. */
export interface FitState {
  readonly sharedEffects: Float64Array;
  readonly own: readonly Float64Array[];
}

/**
 * Where a fit starts: at what was known before, at the priors for the rest, and with guessed levels where the book puts
 * them.
 *
 * @param ids of the materials, in their order
 * @example startFit(null, listed, [], []).sharedEffects.length === listed.names.length // true
 */
export function startFit(
  start: Knowledge | null,
  sharedEffects: SharedEffects,
  ids: readonly number[],
  materials: readonly MaterialEvidence[],
): FitState {
  return scanLevels(startFrom(start, sharedEffects, ids, materials), sharedEffects, materials);
}

function startFrom(
  start: Knowledge | null,
  sharedEffects: SharedEffects,
  ids: readonly number[],
  materials: readonly MaterialEvidence[],
): FitState {
  const places = new Map(start?.names.map((name, index) => [name, index]));
  return {
    sharedEffects: Float64Array.from(sharedEffects.names, (name, index) => {
      const place = places.get(name);
      return place === undefined ? (sharedEffects.mean[index] as number) : (start?.mean[place] as number);
    }),
    own: materials.map(({ ownNames }, index) => {
      const known = start?.own[String(ids[index])];
      return Float64Array.from(ownNames, (name) => known?.[name] ?? 0);
    }),
  };
}

/** How far off levels that nobody weighed are looked for, and how densely, in ln force. */
const LEVELS_REACH = 4;
const LEVELS_STEP = 0.1;

/**
 * Where guessed levels are first taken to lie: the best of many places. From far off nothing pulls, since every grade may
 * have been misread.
 */
function scanLevels(
  from: FitState,
  sharedEffects: SharedEffects,
  materials: readonly MaterialEvidence[],
): FitState {
  let state = from;
  sharedEffects.names.forEach((name, place) => {
    if (levelsOf(name) === null) return;
    const touching = materials.flatMap((material, index) =>
      material.touched.includes(place) ? [{ material, own: state.own[index] as Float64Array }] : [],
    );
    const at = (value: number) => {
      const moved = Float64Array.from(state.sharedEffects);
      moved[place] = value;
      const off = (value - (sharedEffects.mean[place] as number)) / (sharedEffects.sd[place] as number);
      return {
        moved,
        value: touching.reduce(
          (sum, { material, own }) => sum + valueMaterial(material, localOf(material.touched, moved, own)),
          -0.5 * off ** 2,
        ),
      };
    };
    let best = at(state.sharedEffects[place] as number);
    for (let value = -LEVELS_REACH; value <= LEVELS_REACH; value += LEVELS_STEP) {
      const tried = at(value);
      if (tried.value > best.value) best = tried;
    }
    state = { ...state, sharedEffects: best.moved };
  });
  return state;
}
