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
  /** By how many mm each piece is preferred to the others besides. */
  readonly favours: readonly number[];
}

/**
 * The try of a round: what fits best next, then large pieces first, then whatever chance gives.
 *
 * @example chooseTry(0, 3, () => 0.5).isByColumn // false
 */
export function chooseTry(round: number, count: number, random: Random): Try {
  const isByColumn = round % 2 === 1;
  const favours = new Array<number>(count).fill(0);
  if (round < 2)
    return { ranks: null, isByColumn, endWeight: 0.5, sizeWeight: round === 0 ? 1.7 : 1, favours };
  if (round < 6) return { ranks: 'large', isByColumn, endWeight: round < 4 ? 1 : 0, sizeWeight: 0, favours };
  const ranks = round % 4 === 2 ? Array.from({ length: count }, () => random()) : null;
  return { ranks, isByColumn, endWeight: random(), sizeWeight: 3 * random(), favours };
}

/** How far a favour wanders from one try to the next, and how much what was left over gains, mm. */
const WANDER_MM = 3;
const LEFT_OVER_MM = 4;

/**
 * A try not far from another. What did not fit before the last sheet is preferred from now on, as a squeaking wheel is
 * greased first.
 *
 * @param leftOver pieces that lay on the last sheet
 * Source of the idea: Joslin and Clements 1999, "Squeaky Wheel" Optimization.
 * @example nearTry(chooseTry(0, 3, () => 0.5), new Set(), () => 0.5).endWeight <= 1 // true
 */
export function nearTry(near: Try, leftOver: ReadonlySet<number>, random: Random): Try {
  const jitter = (value: number) => Math.max(0, value + 0.5 * (random() - 0.5));
  const { ranks, isByColumn, endWeight, sizeWeight } = near;
  return {
    ranks: Array.isArray(ranks)
      ? (ranks as readonly number[]).map((rank) => rank + 0.2 * (random() - 0.5))
      : ranks,
    isByColumn,
    endWeight: jitter(endWeight),
    sizeWeight: jitter(sizeWeight),
    favours: near.favours.map(
      (favour, piece) =>
        favour + WANDER_MM * (random() - 0.5) + (leftOver.has(piece) ? LEFT_OVER_MM * random() : 0),
    ),
  };
}
