import { FAMILIES, type Family, isSingleLayerFamily } from '#core/stack/families/families.ts';
import type { BeliefName, Priors } from '#core/threshold/thresholdPriors.ts';

/** How far grades lie from each other, but for the gap between free and parted. */
export const SHAPE_EFFECTS = [
  'reachPartial',
  'reachHanging',
  'scored',
  'gouged',
  'breached',
  'matLayered',
  'matSingle',
] as const satisfies readonly BeliefName[];

/** Effects that all sheets share, by name; each machine adds one of its own. */
const SHARED: readonly BeliefName[] = [
  'faceCaliper',
  'ink',
  'laminate',
  'darkness',
  'gapLiner',
  'gapFace',
  ...SHAPE_EFFECTS,
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
/** By how much the guess at a machine's levels is off, and how much steeper they rise than it says. */
export const levelsEffect = (machineId: number) => `levels:${machineId}`;
export const bendEffect = (machineId: number) => `bend:${machineId}`;
/** How much more force one kind of blade wants than another, on every machine. */
const BLADE = 'blade:';
export const bladeEffect = (kind: string) => `${BLADE}${kind}`;

/** The kind of blade that an effect belongs to, or `null`. @example bladeOf('blade:45° fine') // '45° fine' */
export function bladeOf(effect: string): string | null {
  return effect.startsWith(BLADE) ? effect.slice(BLADE.length) : null;
}

/**
 * The kinds of blade that cut at these places, in the order of the alphabet.
 *
 * @example bladeKinds([{ bladeKind: '60° deep' }, { bladeKind: '' }]) // ['60° deep']
 */
export function bladeKinds(
  places: readonly { readonly bladeKind?: string | undefined }[],
): readonly string[] {
  return [...new Set(places.flatMap(({ bladeKind }) => bladeKind || []))].sort();
}

/** The machine that an effect belongs to, or `null`. @example machineOf('machine:4') // 4 */
export function machineOf(effect: string): number | null {
  const id = /^(?:machine|levels|bend):(\d+)$/.exec(effect)?.[1];
  return id === undefined ? null : Number(id);
}

/** The machine whose guessed levels an effect is, or `null`. @example levelsOf('levels:4') // 4 */
export function levelsOf(effect: string): number | null {
  const id = machineOf(effect);
  return id !== null && effect === levelsEffect(id) ? id : null;
}

/**
 * The machines among these whose levels are somebody's guess, by their places.
 *
 * @example guessedMachines([{ machineId: 4, isScaleGuessed: true }, { machineId: 5 }]).size // 1
 */
export function guessedMachines(
  places: readonly { readonly machineId: number; readonly isScaleGuessed?: boolean | undefined }[],
): ReadonlySet<number> {
  return new Set(places.filter(({ isScaleGuessed }) => isScaleGuessed).map(({ machineId }) => machineId));
}

/**
 * The sharedEffects for the machines of a workshop, with what is believed of each effect beforehand.
 *
 * @param guessed those whose levels nobody weighed: they have effects of their own, so that what is odd about one
 * machine stays with it
 * @param kinds kinds of blade that cut, each with an effect of its own
 * @example listSharedEffects([7], COMMON_PRIORS).names.at(-1) // 'machine:7'
 */
export function listSharedEffects(
  machineIds: readonly number[],
  { beliefs, told }: Priors,
  guessed: ReadonlySet<number> = new Set(),
  kinds: readonly string[] = [],
): SharedEffects {
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
    ...machineIds
      .filter((id) => guessed.has(id))
      .flatMap((id) => [
        [levelsEffect(id), beliefs.levels] as const,
        [bendEffect(id), beliefs.bend] as const,
      ]),
    ...kinds.map((kind) => [bladeEffect(kind), beliefs.blade] as const),
  ];
  const believed = entries.map(([name, belief]) => told?.[name] ?? belief);
  return {
    names: entries.map(([name]) => name),
    places: new Map(entries.map(([name], index) => [name, index])),
    mean: Float64Array.from(believed, ({ mean }) => mean),
    sd: Float64Array.from(believed, ({ sd }) => sd),
  };
}

/**
 * The effects that the places of a book share: its machines, which of them are guessed, its kinds of blade.
 *
 * @example listEffectsOf([place], COMMON_PRIORS).names.includes('machine:1') // true
 */
export function listEffectsOf(
  book: readonly {
    readonly machineId: number;
    readonly isScaleGuessed?: boolean | undefined;
    readonly bladeKind?: string | undefined;
  }[],
  priors: Priors,
): SharedEffects {
  const machineIds = [...new Set(book.map(({ machineId }) => machineId))].sort((a, b) => a - b);
  return listSharedEffects(machineIds, priors, guessedMachines(book), bladeKinds(book));
}
