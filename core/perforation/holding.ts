import { factsOf, type Family } from '#core/stack/families/families.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import { gfToNewton } from '#core/units/forceScale.ts';
import type { Stack } from '#core/stack/layer.ts';

/** Drag of the blade along its way as a share of the force down. Common practice, no source. */
const DRAG_SHARE = 0.7;
/** Of all tabs these carry the pull at any moment: those near the blade. Common practice, no source. */
const CARRYING = 0.3;
/** A thumb pushes a piece out with this much at its most, N. Common practice, no source. */
export const THUMB_MOST_N = 25;
/** The thumb tears the tabs beside it first, one after the other: so many at a time. Common practice, no source. */
const TORN_AT_ONCE = 2;

/** A sheet and what cuts it, as far as tabs feel it. */
export interface TabSheet {
  /** What a tab bears for each mm of its length, N. */
  readonly bearsNPerMm: number;
  readonly grammageGPerM2: number;
  readonly cutForceGf: number;
  readonly accelerationMmPerS2: number;
}

/** A perforated piece. */
export interface TabPiece {
  readonly tabs: number;
  readonly tabLengthMm: number;
  readonly areaMm2: number;
}

/** Forces on a piece, N, and two indices: above 1 it stays in, above 1 it comes out. */
export interface Holding {
  readonly holdN: number;
  readonly dragN: number;
  readonly jerkN: number;
  readonly releaseN: number;
  /** What the carrying tabs bear against what pulls. */
  readonly holdIndex: number;
  /** What a thumb gives at its most against what must tear at once. */
  readonly popIndex: number;
}

/**
 * The forces on a perforated piece: its tabs bear what they are long; the blade's drag and the jerk of the feed pull at
 * it; a thumb must tear the tabs beside it.
 *
 * Source: tensile strength of a strip (any mechanics textbook); shares are common practice, no source.
 *
 * @example estimateHolding({ tabs: 8, tabLengthMm: 1, areaMm2: 2500 }, { bearsNPerMm: 3.9, grammageGPerM2: 250, cutForceGf: 180, accelerationMmPerS2: 2000 }).holdIndex > 1 // true
 */
export function estimateHolding(piece: TabPiece, sheet: TabSheet): Holding {
  const perTabN = piece.tabLengthMm * sheet.bearsNPerMm;
  const holdN = perTabN * carryingTabs(piece.tabs);
  const { dragN, jerkN } = pullOn(piece.areaMm2, sheet);
  const releaseN = perTabN * tornTabs(piece.tabs);
  return {
    holdN,
    dragN,
    jerkN,
    releaseN,
    holdIndex: holdN / Math.max(LENGTH_MM, dragN + jerkN),
    popIndex: THUMB_MOST_N / Math.max(LENGTH_MM, releaseN),
  };
}

/**
 * How many of a piece's tabs carry the pull at once, on the average.
 *
 * @example carryingTabs(10) // 3
 */
export function carryingTabs(tabs: number): number {
  return Math.max(1, tabs * CARRYING);
}

/**
 * How many tabs a thumb must tear at once.
 *
 * @example tornTabs(10) // 2
 */
export function tornTabs(tabs: number): number {
  return Math.min(tabs, TORN_AT_ONCE);
}

/**
 * What pulls at a piece while it is cut, N.
 *
 * @example pullOn(2500, { bearsNPerMm: 3.9, grammageGPerM2: 250, cutForceGf: 180, accelerationMmPerS2: 2000 }).dragN.toFixed(2) // '1.24'
 */
export function pullOn(
  areaMm2: number,
  { cutForceGf, grammageGPerM2, accelerationMmPerS2 }: TabSheet,
): { readonly dragN: number; readonly jerkN: number } {
  const massKg = (areaMm2 / 1e6) * (grammageGPerM2 / 1000);
  return { dragN: DRAG_SHARE * gfToNewton(cutForceGf), jerkN: massKg * (accelerationMmPerS2 / 1000) };
}

/**
 * What stays uncut under a tab and what it bears: the liner, or on a single layer what a light pass leaves.
 *
 * @example uncutOf([{ role: 'body', caliperUm: 300, isMeasured: true }], 'cardstock').uncutUm // 150
 */
export function uncutOf(
  stack: Stack,
  family: Family,
): { readonly uncutUm: number; readonly tensileMPa: number } {
  const liner = stack.find(({ role }) => role === 'liner');
  const { tensileMPa } = factsOf(family);
  if (liner) return { uncutUm: liner.caliperUm, tensileMPa: tensileMPa.liner };
  const total = stack.reduce((sum, { caliperUm }) => sum + caliperUm, 0);
  return { uncutUm: total * 0.5, tensileMPa: tensileMPa.body };
}

/** What a paper liner of 130 µm bears for each mm, N: the tabs that most reports are of. Common practice, no source. */
const USUAL_N_PER_MM = 3.9;
/**
 * How far a sheet's caliper and strength are trusted to tell its tabs from usual ones: operators settle on much the same
 * lengths for film and carton (T6), and how a notched strip tears follows its strength only in part. Common practice,
 * no source.
 */
const TRUSTED = 0.5;

/**
 * What a tab of this sheet is believed to bear for each mm of its length, N, before a piece of it was judged.
 *
 * @example bearsOf([{ role: 'body', caliperUm: 260, isMeasured: true }], 'stencilSheet').toFixed(1) // '5.0'
 */
export function bearsOf(stack: Stack, family: Family): number {
  const { uncutUm, tensileMPa } = uncutOf(stack, family);
  const ofStripN = (uncutUm / 1000) * tensileMPa;
  return USUAL_N_PER_MM * (ofStripN / USUAL_N_PER_MM) ** TRUSTED;
}

/**
 * A usual weight by caliper where the pack names none: films and papers weigh about this, g/m² a µm.
 *
 * @example grammageOf([{ role: 'body', caliperUm: 200, isMeasured: true }]) // 210
 */
export function grammageOf(stack: Stack): number {
  return stack.reduce((sum, { caliperUm }) => sum + caliperUm, 0) * 1.05;
}
