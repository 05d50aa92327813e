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
}

/** Everything seen of one sheet on one machine. */
export interface EvidenceSheet extends SheetPlace {
  readonly trials: readonly Trial[];
}

/**
 * One text per place, so that the trials of a place can be told from those of its relatives.
 *
 * @example namePlace(place) === namePlace({ ...place }) // true
 */
export function namePlace(place: SheetPlace): string {
  return [place.materialId, place.condition, place.lot, place.colour, place.machineId].join('/');
}
