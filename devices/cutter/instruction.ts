/** A place on the bed, mm from the lower left of the sheet. */
export interface Spot {
  readonly xMm: number;
  readonly yMm: number;
}

/** What the bytes ask a cutter to do, whatever language they came in. */
export type Instruction =
  | { readonly kind: 'begin' }
  | { readonly kind: 'tool'; readonly seat: number }
  | { readonly kind: 'force'; readonly value: number }
  | { readonly kind: 'speed'; readonly value: number }
  | { readonly kind: 'travel'; readonly points: readonly Spot[] }
  | { readonly kind: 'cut'; readonly points: readonly Spot[] }
  /** A stroke that comes piece by piece: the tool goes down, draws, and is lifted. */
  | { readonly kind: 'press' }
  | { readonly kind: 'draw'; readonly to: Spot }
  | { readonly kind: 'lift' }
  | { readonly kind: 'defineLine'; readonly shares: readonly number[] }
  | { readonly kind: 'line'; readonly periodMm: number | null }
  | { readonly kind: 'end' };

/** Bytes that this cutter does not take, with what it saw. */
export class DecodeError extends Error {}
