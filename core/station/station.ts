import type { Material, MaterialCondition } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import type { TackClass } from '#core/wear/tackIndex.ts';

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
  /** How much of it can leave its holder, mm; `null` when nobody measured. */
  readonly reachMm: number | null;
  readonly holder: string;
  /** How far one step of its holder's own dial moves the tip, mm; left out or `null` where it has none. */
  readonly dialMmPerStep?: number | null | undefined;
  readonly isHardMetal: boolean;
  /** ISO times, or `null`. */
  readonly cleanedAt: string | null;
  readonly retiredAt: string | null;
}

/** A numbered mat. `uses` counts from new; the other two counts say how many of them came before. */
export interface Mat {
  readonly id: number;
  readonly number: number;
  readonly tack: TackClass;
  readonly uses: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly usesAtRestick: number;
  readonly usesAtCleaning: number;
  /** ISO time it was first laid, or `null`. */
  readonly firstUsedAt: string | null;
  readonly hasGrooves: boolean;
  readonly isForFineWork: boolean;
  readonly retiredAt: string | null;
  /** How its tack felt when a hand tested it, over what was reckoned then; `null` where none did since it was re-stuck. */
  readonly feltShare?: number | null | undefined;
}

/** A material in the state in which it lies on the machine. Colour is empty for the material's own. */
export interface LoadedSheet {
  readonly material: Material;
  readonly condition: MaterialCondition;
  readonly lot: string;
  readonly colour: string;
}

/** A machine with what is on it now. */
export interface Station {
  readonly machine: Machine;
  readonly blade: Blade | null;
  readonly mat: Mat | null;
  readonly loaded: LoadedSheet | null;
}

/** A station with a sheet on it. */
export interface LoadedStation extends Station {
  readonly loaded: LoadedSheet;
}
