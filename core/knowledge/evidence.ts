import type { SheetTraits, Trial } from '#core/threshold/trial.ts';

/** Which sheet on which machine: trials of one place share their boundaries. */
export interface SheetPlace {
  readonly traits: SheetTraits;
  readonly materialId: number;
  readonly machineId: number;
  /** The state of the material, such as "printed"; the bare one is the reference. */
  readonly condition: string;
  /** Lot and colour on the pack, or empty for the material's own. */
  readonly lot: string;
  readonly colour: string;
  /** True on a machine whose levels nobody weighed; see isGuessed. */
  readonly isScaleGuessed?: boolean | undefined;
  /** Kind of the blade that cuts, "45° fine"; empty or left out where nobody knows. */
  readonly bladeKind?: string | undefined;
}

/** Everything seen of one sheet on one machine. */
export interface EvidenceSheet extends SheetPlace {
  readonly trials: readonly Trial[];
}

/**
 * Whether two places are one, so that the trials of a place can be told from those of its relatives. Where nobody knows
 * what kind of blade cut, it is taken as the kind that is asked for.
 *
 * @example isSamePlace(place, { ...place, bladeKind: '60° deep' }) // true
 */
export function isSamePlace(one: SheetPlace, other: SheetPlace): boolean {
  const nameOf = ({ materialId, condition, lot, colour, machineId }: SheetPlace) =>
    JSON.stringify([materialId, condition, lot, colour, machineId]);
  return nameOf(one) === nameOf(other) && isSameKind(one.bladeKind, other.bladeKind);
}

/**
 * Whether a cut was made with a kind of blade, as far as anybody knows.
 *
 * @example isSameKind('45° fine', '60° deep') // false
 */
export function isSameKind(one: string | undefined, other: string | undefined): boolean {
  return !one || !other || one === other;
}
