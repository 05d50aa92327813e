import { factsOf, type Family } from '#core/stack/families/families.ts';

/** Tack classes as mats are sold. */
export const TACK_CLASSES = ['light', 'standard', 'strong'] as const;
export type TackClass = (typeof TACK_CLASSES)[number];

/** What tells how well a mat still holds. */
export interface MatWear {
  readonly tack: TackClass;
  /** Loads since new, or since it was last re-stuck. */
  readonly uses: number;
  readonly ageDays: number;
  /** Loads since it was last washed. */
  readonly usesSinceCleaned: number;
  /** How it felt when a hand tested it, over what was reckoned then; left out or `null` where none did. */
  readonly feltShare?: number | null | undefined;
}

/** How the cover sheet, or a card pressed on by hand, comes off a mat: it tells the tack better than counting. */
export const TACK_FEELS = ['jerks', 'steady', 'light', 'falls'] as const;
export type TackFeel = (typeof TACK_FEELS)[number];

/** What each feels like, and the tack index that it speaks for. Common practice, no source (T42). */
export const TACK_FELT: Readonly<Record<TackFeel, { readonly words: string; readonly index: number }>> = {
  jerks: { words: 'hard, in jerks', index: 85 },
  steady: { words: 'with a steady pull', index: 60 },
  light: { words: 'lightly', index: 38 },
  falls: { words: 'by itself', index: 15 },
};

/** Tack when new. Common practice, no source. */
const FRESH: Readonly<Record<TackClass, number>> = { light: 45, standard: 70, strong: 95 };
/** A mat has lost a third of its tack after so many loads. Common practice, no source (T14: 20 to 30 loads). */
const USES_TO_TWO_THIRDS = 25;
const DAYS_TO_TWO_THIRDS = 400;
/** Lint takes up to this share, most of it within {@link LINT_USES} loads; washing brings it back. */
const LINT_SHARE = 0.2;
const LINT_USES = 8;

/**
 * How well a mat holds, 0 (slips) to 100 (fresh strong mat): reckoned from what was counted, and from how it felt where a
 * hand tested it.
 *
 * @example tackIndex({ tack: 'standard', uses: 0, ageDays: 0, usesSinceCleaned: 0 }) // 70
 */
export function tackIndex(wear: MatWear): number {
  return Math.min(100, Math.round(reckonedTack(wear) * (wear.feltShare ?? 1)));
}

/**
 * What a test by hand says of a mat from then on: how it felt, over what was reckoned of it.
 *
 * @returns above 0
 * @example feltShareOf({ tack: 'standard', uses: 0, ageDays: 0, usesSinceCleaned: 0 }, 'light') // 0.543
 */
export function feltShareOf(wear: MatWear, feel: TackFeel): number {
  return TACK_FELT[feel].index / Math.max(1, reckonedTack(wear));
}

/** The index by what was counted alone. */
function reckonedTack({ tack, uses, ageDays, usesSinceCleaned }: MatWear): number {
  const worn = (2 / 3) ** (uses / USES_TO_TWO_THIRDS + ageDays / DAYS_TO_TWO_THIRDS);
  const lint = 1 - LINT_SHARE * (1 - Math.exp(-usesSinceCleaned / LINT_USES));
  return FRESH[tack] * worn * lint;
}

/** How a mat suits a sheet. */
export type TackFit = 'slips' | 'suits' | 'tears';

/**
 * Whether a mat of this tack index suits a family of sheets.
 *
 * @example fitTack(95, 'stickerPaper') // 'tears'
 */
export function fitTack(index: number, family: Family): TackFit {
  const [low, high] = factsOf(family).wantedTack;
  if (index < low) return 'slips';
  return index > high ? 'tears' : 'suits';
}
