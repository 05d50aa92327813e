import { FAMILIES, type Family, isSingleLayerFamily } from '#core/stack/families/families.ts';
import type { BeliefName, Priors } from '#core/threshold/thresholdPriors.ts';

/** Effects that all sheets share, by name; each machine adds one of its own. */
const SHARED: readonly BeliefName[] = [
  'faceCaliper',
  'ink',
  'laminate',
  'darkness',
  'gapLiner',
  'gapFace',
  'reachPartial',
  'reachHanging',
  'scored',
  'gouged',
  'breached',
  'matLayered',
  'matSingle',
  'passes',
  'wear',
  'speed',
];

/**
 * The effects that more than one material speaks to: the sharedEffects of the information matrix, beside which every
 * material has a small block of its own.
 */
export interface SharedEffects {
  readonly names: readonly string[];
  readonly places: ReadonlyMap<string, number>;
  readonly mean: Float64Array;
  readonly sd: Float64Array;
}

export const familyEffect = (family: Family) => `family:${family}`;
export const gapEffect = (family: Family) => `gap:${family}`;
export const machineEffect = (machineId: number) => `machine:${machineId}`;

/** The machine that an effect belongs to, or `null`. @example machineOf('machine:4') // 4 */
export function machineOf(effect: string): number | null {
  const id = /^machine:(\d+)$/.exec(effect)?.[1];
  return id === undefined ? null : Number(id);
}

/**
 * The sharedEffects for the machines of a workshop, with what is believed of each effect beforehand.
 *
 * @example listSharedEffects([7], COMMON_PRIORS).names.at(-1) // 'machine:7'
 */
export function listSharedEffects(machineIds: readonly number[], { beliefs }: Priors): SharedEffects {
  const entries: (readonly [string, { readonly mean: number; readonly sd: number }])[] = [
    ...FAMILIES.map(
      (family) =>
        [
          familyEffect(family),
          isSingleLayerFamily(family) ? beliefs.singleOffset : beliefs.layeredOffset,
        ] as const,
    ),
    ...FAMILIES.map((family) => [gapEffect(family), beliefs.gapFamily] as const),
    ...SHARED.map((name) => [name, beliefs[name]] as const),
    ...machineIds.map((id) => [machineEffect(id), beliefs.machine] as const),
  ];
  return {
    names: entries.map(([name]) => name),
    places: new Map(entries.map(([name], index) => [name, index])),
    mean: Float64Array.from(entries, ([, { mean }]) => mean),
    sd: Float64Array.from(entries, ([, { sd }]) => sd),
  };
}
