/** How a sheet may be printed. */
export const PRINT_METHODS = ['ink', 'toner'] as const;
export type PrintMethod = (typeof PRINT_METHODS)[number];

/** Which side takes the print. */
export const PRINT_SIDES = ['none', 'top', 'either'] as const;
export type PrintSide = (typeof PRINT_SIDES)[number];

/** Which way the fibres of a card run, along the long or the short edge. */
export const FIBRE_DIRECTIONS = ['unknown', 'long', 'short'] as const;
export type FibreDirection = (typeof FIBRE_DIRECTIONS)[number];

/** A delivery. `forcePercent` is how much more force it wants than the material's own settings. */
export interface Lot {
  readonly code: string;
  /** ISO date, or empty. */
  readonly receivedOn: string;
  readonly storage: string;
  readonly humidityPercent: number | null;
  readonly forcePercent: number;
  readonly note: string;
  readonly isArchived: boolean;
}

/** A colour of the same make. `darkness` from 0 to 1; `forcePercent` as for a lot. */
export interface Colour {
  readonly name: string;
  readonly hex: string;
  readonly darkness: number;
  readonly forcePercent: number;
}

/** A usable rest of a sheet, mm. */
export interface Remnant {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly note: string;
  /** Of a sheet that is still whole: how much of its length one end took; absent for a piece cut off. */
  readonly takenMm?: number | undefined;
}

/** What it costs, and what is left. */
export interface Stock {
  readonly unit: 'sheet' | 'metre';
  readonly price: number | null;
  readonly currency: string;
  readonly onHand: number | null;
}

/** How a transfer is pressed on. */
export interface Heat {
  readonly temperatureC: number;
  readonly seconds: number;
  readonly note: string;
}

/** Everything about a material beside its name, its colour and its layers. */
export interface MaterialDetails {
  readonly product: string;
  readonly nicknames: readonly string[];
  readonly printMethods: readonly PrintMethod[];
  readonly printSide: PrintSide;
  readonly isMirrored: boolean;
  readonly heat: Heat | null;
  readonly adhesive: string;
  readonly fibre: FibreDirection;
  readonly lots: readonly Lot[];
  readonly colours: readonly Colour[];
  readonly stock: Stock;
  readonly remnants: readonly Remnant[];
  /** What it must never be cut or used for. */
  readonly neverFor: readonly string[];
  readonly note: string;
}

/** A material nobody said more about. */
export const NO_DETAILS: MaterialDetails = {
  product: '',
  nicknames: [],
  printMethods: [],
  printSide: 'none',
  isMirrored: false,
  heat: null,
  adhesive: '',
  fibre: 'unknown',
  lots: [],
  colours: [],
  stock: { unit: 'sheet', price: null, currency: 'EUR', onHand: null },
  remnants: [],
  neverFor: [],
  note: '',
};

/**
 * The lots that can still be loaded, newest first.
 *
 * @example openLots(material.details) // []
 */
export function openLots(details: MaterialDetails): readonly Lot[] {
  return details.lots
    .filter((lot) => !lot.isArchived)
    .toSorted((a, b) => b.receivedOn.localeCompare(a.receivedOn));
}
