import type { Machine } from '#core/station/machine.ts';
import type { Material, MaterialCondition } from '#core/stack/material.ts';

/** A numbered blade. `lifeMetres` is how far blades of its kind usually last. */
export interface Blade {
  readonly id: number;
  readonly number: number;
  /** Settings belong to a kind, not to one blade: "45° fine". */
  readonly kind: string;
  readonly angleDeg: number;
  readonly offsetMm: number;
  readonly travelMetres: number;
  readonly lifeMetres: number;
  readonly fittedTo: number | null;
}

/** A numbered mat. */
export interface Mat {
  readonly id: number;
  readonly number: number;
  readonly tack: 'light' | 'standard' | 'strong';
  readonly uses: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** A material in the state in which it lies on the machine. */
export interface LoadedSheet {
  readonly material: Material;
  readonly condition: MaterialCondition;
  readonly lot: string;
}

/** A machine with what is on it now. */
export interface Station {
  readonly machine: Machine;
  readonly blade: Blade | null;
  readonly mat: Mat | null;
  readonly loaded: LoadedSheet | null;
}
