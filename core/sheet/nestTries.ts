import type { Random } from '#core/random/seededRandom.ts';

/** Tries of every kind before those near the best begin. */
export const FIRST_TRIES = 6;

/** How one try goes about it. */
export interface Try {
  /** Rank of each piece: lower goes first; `null` takes whatever fits best next. */
  readonly ranks: 'large' | readonly number[] | null;
  /** Filled along columns instead of rows. */
  readonly isByColumn: boolean;
  /** How much of a piece's own depth counts when places are compared: 0 by where it begins, 1 by where it ends. */
  readonly endWeight: number;
  /** How much a large piece is preferred to a small one, in rows per row of its edge. */
  readonly sizeWeight: number;
}

/** The try of a round: what fits best next, then large pieces first, then whatever chance gives. */
export function chooseTry(round: number, count: number, random: Random): Try {
  const isByColumn = round % 2 === 1;
  if (round < 2) return { ranks: null, isByColumn, endWeight: 0.5, sizeWeight: 1 };
  if (round < 6) return { ranks: 'large', isByColumn, endWeight: round < 4 ? 1 : 0, sizeWeight: 0 };
  const ranks = round % 4 === 2 ? Array.from({ length: count }, () => random()) : null;
  return { ranks, isByColumn, endWeight: random(), sizeWeight: 2 * random() };
}

/** A try not far from the best so far. */
export function nearTry({ ranks, isByColumn, endWeight, sizeWeight }: Try, random: Random): Try {
  const jitter = (value: number) => Math.max(0, value + 0.5 * (random() - 0.5));
  const near = Array.isArray(ranks)
    ? (ranks as readonly number[]).map((rank) => rank + 0.2 * (random() - 0.5))
    : ranks;
  return { ranks: near, isByColumn, endWeight: jitter(endWeight), sizeWeight: jitter(sizeWeight) };
}
