import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import { gfToNewton } from '#core/units/forceScale.ts';
import type { Stack } from '#core/stack/layer.ts';
import { factsOf, type Family } from '#core/stack/families/families.ts';

/** Drag of the blade along its way as a share of the force down. Common practice, no source. */
const DRAG_SHARE = 0.7;
/** Of all tabs these carry the pull at any moment: those near the blade. Common practice, no source. */
const CARRYING = 0.3;
/** A thumb pushes a piece out with this much at ease, and this much at most, N. Common practice, no source. */
const THUMB_N = { ease: 8, most: 25 };
/** The thumb tears the tabs beside it first, one after the other: so many at a time. Common practice, no source. */
const TORN_AT_ONCE = 2;

/** What lies along the tabs of one piece. */
export interface HoldOrder {
  readonly tabs: number;
  readonly tabLengthMm: number;
  readonly areaMm2: number;
  /** What is left uncut under a tab, µm. */
  readonly uncutUm: number;
  readonly tensileMPa: number;
  readonly grammageGPerM2: number;
  readonly cutForceGf: number;
  readonly accelerationMmPerS2: number;
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
 * The forces on a perforated piece: its tabs bear width × uncut caliper × strength; the blade's drag and the jerk of the
 * feed pull at it; a thumb must tear the tabs beside it.
 *
 * Source: tensile strength of a strip (any mechanics textbook); strengths and shares are common practice, no source.
 *
 * @example estimateHolding({ tabs: 8, tabLengthMm: 1, areaMm2: 2500, uncutUm: 130, tensileMPa: 30, grammageGPerM2: 250, cutForceGf: 180, accelerationMmPerS2: 2000 }).holdIndex > 1 // true
 */
export function estimateHolding(order: HoldOrder): Holding {
  const perTabN = order.tabLengthMm * (order.uncutUm / 1000) * order.tensileMPa;
  const holdN = perTabN * Math.max(1, order.tabs * CARRYING);
  const dragN = DRAG_SHARE * gfToNewton(order.cutForceGf);
  const massKg = (order.areaMm2 / 1e6) * (order.grammageGPerM2 / 1000);
  const jerkN = massKg * (order.accelerationMmPerS2 / 1000);
  const releaseN = perTabN * Math.min(order.tabs, TORN_AT_ONCE);
  return {
    holdN,
    dragN,
    jerkN,
    releaseN,
    holdIndex: holdN / Math.max(LENGTH_MM, dragN + jerkN),
    popIndex: THUMB_N.most / Math.max(LENGTH_MM, releaseN),
  };
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

/**
 * A usual weight by caliper where the pack names none: films and papers weigh about this, g/m² a µm.
 *
 * @example grammageOf([{ role: 'body', caliperUm: 200, isMeasured: true }]) // 210
 */
export function grammageOf(stack: Stack): number {
  return stack.reduce((sum, { caliperUm }) => sum + caliperUm, 0) * 1.05;
}
