import { itemAt } from '#core/collections/itemAt.ts';
import { NOTHING } from '#core/units/rounding.ts';
import { AppError } from '#core/errors/appError.ts';
import { normalCdf } from '#core/threshold/numerics/normal.ts';

/**
 * A quantity that is judged on five steps where force is not the question: how a perforated piece held, how a crease
 * folded. One latent index, boundaries one apart in units of their reach, and a single unknown: where this sheet's
 * middle lies.
 */
export interface SimpleQuantity {
  readonly name: string;
  /** Five words from too weak to too strong; the middle one is wanted. */
  readonly steps: readonly [string, string, string, string, string];
  /** Boundaries between the steps on the latent index, ascending; a piece may bring its own. */
  readonly boundaries: Boundaries;
  /** What is believed of the middle on the index, and the noise of one piece. */
  readonly prior: { readonly mean: number; readonly sd: number; readonly reason: string };
  readonly noise: number;
}

export type Boundaries = readonly [number, number, number, number];

/** A piece before it is judged: its latent index before the sheet's own middle is known. */
export interface SimplePiece {
  readonly index: number;
  readonly boundaries?: Boundaries | undefined;
}

/** One judged piece, and the step seen, 0 to 4. */
export interface SimpleTrial extends SimplePiece {
  readonly seen: number;
}

/** What is believed of the sheet's middle: a grid with weights that sum to 1. */
export interface SimplePosterior {
  readonly grid: Float64Array;
  readonly weights: Float64Array;
}

const GRID = 241;
const REACH_SD = 5;
/** Share of pieces judged one step off. */
const MISJUDGED = 0.05;

/**
 * Learns a sheet's middle from judged pieces, exactly, on a grid.
 *
 * @throws AppError `badInput` for a step that is not 0 to 4
 * @example fitSimple(quantity, []).grid.length // 241
 */
export function fitSimple(quantity: SimpleQuantity, trials: readonly SimpleTrial[]): SimplePosterior {
  const { mean, sd } = quantity.prior;
  const grid = Float64Array.from(
    { length: GRID },
    (_, index) => mean + sd * REACH_SD * ((2 * index) / (GRID - 1) - 1),
  );
  const logs = grid.map((middle) => {
    const prior = -0.5 * ((middle - mean) / sd) ** 2;
    return trials.reduce((sum, { seen, ...piece }) => {
      if (!Number.isInteger(seen) || seen < 0 || seen > 4) {
        throw new AppError('badInput', `step ${seen} is not one of 0 to 4`);
      }
      return sum + Math.log(chancesAt(quantity, piece, middle)[seen] as number);
    }, prior);
  });
  const most = logs.reduce((a, b) => Math.max(a, b), -Infinity);
  const weights = logs.map((value) => Math.exp(value - most));
  const sum = weights.reduce((a, b) => a + b, 0);
  return { grid, weights: weights.map((weight) => weight / sum) };
}

/**
 * P(each of the five steps) of a piece, misjudging included.
 *
 * @example predictSimple(quantity, fitSimple(quantity, []), { index: 0 }).length // 5
 */
export function predictSimple(
  quantity: SimpleQuantity,
  { grid, weights }: SimplePosterior,
  piece: SimplePiece,
): readonly number[] {
  const sums = [0, 0, 0, 0, 0];
  grid.forEach((middle, place) => {
    chancesAt(quantity, piece, middle).forEach((chance, step) => {
      sums[step] = itemAt(sums, step) + itemAt(weights, place) * chance;
    });
  });
  return sums;
}

/**
 * The middle of what is believed, on the index.
 *
 * @example meanOf(fitSimple(quantity, [])) < 1e-12 // true
 */
export function meanOf({ grid, weights }: SimplePosterior): number {
  return grid.reduce((sum, at, place) => sum + at * itemAt(weights, place), 0);
}

function chancesAt(quantity: SimpleQuantity, piece: SimplePiece, middle: number): readonly number[] {
  const { boundaries = quantity.boundaries, index } = piece;
  const below = boundaries.map((boundary) => normalCdf((boundary - index + middle) / quantity.noise));
  const truth = [0, 1, 2, 3, 4].map((step) => (below[step] ?? 1) - (below[step - 1] ?? 0));
  return truth.map((chance, step) => {
    const left = truth[step - 1] ?? 0;
    const right = truth[step + 1] ?? 0;
    const stays = step === 0 || step === 4 ? 1 - MISJUDGED / 2 : 1 - MISJUDGED;
    return Math.max(NOTHING, chance * stays + (MISJUDGED / 2) * (left + right));
  });
}
