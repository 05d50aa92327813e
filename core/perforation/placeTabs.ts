import { itemAt } from '#core/collections/itemAt.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import { NOTHING, ROUNDING } from '#core/units/rounding.ts';
import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { findCorners, type ContourCorner } from '#core/perforation/findCorners.ts';
import { pointAlong } from '#core/geometry/pointAlong.ts';

/** What is asked of a perforation. Lengths in mm. */
export interface PerforationOrder {
  readonly cutLengthMm: number;
  readonly tabLengthMm: number;
  /** Tabs keep at least this far from corners. */
  readonly cornerClearanceMm: number;
  /** Which way the sheet travels first: a tab is kept at the edge that leads. `null` when it does not travel. */
  readonly leading: 'top' | 'bottom' | null;
  /** Where the thumb pushes: no tab lies within a cut length of the place on the outline nearest to it. */
  readonly thumb: PointMm | null;
}

/** One tab by its ends along the ring, from its start; `fromMm` may lie beyond the end, where it wraps. */
export interface Tab {
  readonly fromMm: number;
  readonly toMm: number;
}

/** Tabs on a ring, or why it has none. */
export type Perforation =
  | {
      readonly kind: 'tabs';
      readonly tabs: readonly Tab[];
      /** Where the stroke begins: in the middle of a cut, off corners. */
      readonly startMm: number;
      readonly lengthMm: number;
      /** Every tab begins one period after the one before, but for those moved off a corner. */
      readonly periodMm: number;
      /** How many were moved off a corner or a tight curve. */
      readonly moved: number;
    }
  | { readonly kind: 'kissOnly'; readonly reason: string; readonly lengthMm: number };

/** A ring needs this many tabs to hold flat. Common practice, no source. */
const FEWEST_TABS = 3;
/** A side between corners this long gets a tab of its own, in cut lengths. Common practice, no source. */
const SIDE_NEEDS_TAB = 0.8;
/** Positions of the whole pattern that are compared. */
const PHASES = 48;

/**
 * Places tabs along a ring: a whole number of equal periods near the lengths asked, turned to where the fewest tabs fall
 * on corners; those that still do are moved along, and a side left without is given one. Small rings get three shorter
 * periods, and rings with no room for two tabs and their cuts are only kissed, with the reason.
 *
 * @param ring ends on its first point, mm
 * @returns tabs by distance along the ring, ascending, never overlapping
 * @example placeTabs(square, { cutLengthMm: 4, tabLengthMm: 1, cornerClearanceMm: 1, leading: null, thumb: null }).tabs.length // 6
 */
export function placeTabs(ring: readonly PointMm[], order: PerforationOrder): Perforation {
  const lengthMm = measurePolyline(ring);
  const { tabLengthMm, cutLengthMm } = order;
  const most = Math.floor(lengthMm / (2 * tabLengthMm + 1));
  const count = Math.max(FEWEST_TABS, Math.round(lengthMm / (cutLengthMm + tabLengthMm)));
  if (most < 2) {
    const reason = `its outline of ${lengthMm.toFixed(1)} mm has no room for two tabs of ${tabLengthMm} mm`;
    return { kind: 'kissOnly', reason, lengthMm };
  }
  const tabs = Math.min(count, most);
  const periodMm = lengthMm / tabs;
  const corners = findCorners(ring);
  const bad = listBad(ring, lengthMm, corners, order);
  const phase = choosePhase(periodMm, bad, leadingPlace(ring, order.leading));
  const middles = Array.from({ length: tabs }, (_, index) => (phase + index * periodMm) % lengthMm);
  const free = middles.map((middle) => moveOff(middle, bad, lengthMm, periodMm * 0.45));
  const sided = serveSides(free, corners, bad, lengthMm, order);
  const sorted = [...sided].sort((a, b) => a - b);
  const moved = sorted.filter((middle) => !middles.some((old) => Math.abs(old - middle) < ROUNDING)).length;
  return {
    kind: 'tabs',
    tabs: sorted.map((middle) => ({ fromMm: middle - tabLengthMm / 2, toMm: middle + tabLengthMm / 2 })),
    startMm: chooseStart(sorted, bad, lengthMm),
    lengthMm,
    periodMm,
    moved,
  };
}

/** A stretch that tabs avoid, by its middle and half its length. */
interface BadStretch {
  readonly middle: number;
  readonly half: number;
  readonly weight: number;
}

function listBad(
  ring: readonly PointMm[],
  lengthMm: number,
  corners: readonly ContourCorner[],
  { cornerClearanceMm, tabLengthMm, cutLengthMm, thumb }: PerforationOrder,
): readonly BadStretch[] {
  // On a small ring the clearance may not eat all its sides.
  const half = Math.min(cornerClearanceMm, lengthMm / 20) + tabLengthMm / 2;
  const bad = corners.map(({ atMm }): BadStretch => ({ middle: atMm, half, weight: 1 }));
  if (!thumb) return bad;
  return [...bad, { middle: nearestPlace(ring, thumb), half: cutLengthMm / 2, weight: 1 }];
}

/** Where the equal pattern begins: of all its tabs only the nearest to a bad stretch counts against it. */
function choosePhase(periodMm: number, bad: readonly BadStretch[], leadingMm: number | null): number {
  const offset = (phase: number, place: number) => {
    const apart = (((place - phase) % periodMm) + periodMm) % periodMm;
    return Math.min(apart, periodMm - apart);
  };
  let best = { phase: 0, cost: Infinity };
  for (let step = 0; step < PHASES; step++) {
    const phase = (step / PHASES) * periodMm;
    let cost = leadingMm === null ? 0 : (0.4 * offset(phase, leadingMm)) / periodMm;
    for (const { middle, half, weight } of bad) {
      const gap = offset(phase, middle);
      if (gap < half) cost += weight * (1.5 - gap / half);
    }
    if (cost < best.cost - NOTHING) best = { phase, cost };
  }
  return best.phase;
}

/** The nearest place outside all bad stretches, no further than `reach`; where there is none it stays. */
function moveOff(middle: number, bad: readonly BadStretch[], lengthMm: number, reach: number): number {
  const isFree = (at: number) => bad.every((one) => around(at, one.middle, lengthMm) >= one.half - ROUNDING);
  if (isFree(middle)) return middle;
  const edges = bad
    .flatMap(({ middle: at, half }) => [at - half, at + half])
    .map((at) => ((at % lengthMm) + lengthMm) % lengthMm)
    .filter((at) => around(at, middle, lengthMm) <= reach && isFree(at))
    .sort((a, b) => around(a, middle, lengthMm) - around(b, middle, lengthMm));
  return edges[0] ?? middle;
}

/** Long sides that no tab fell on get the nearest tab of a side that has two, or one more. */
function serveSides(
  middles: readonly number[],
  corners: readonly ContourCorner[],
  bad: readonly BadStretch[],
  lengthMm: number,
  { cutLengthMm, tabLengthMm }: PerforationOrder,
): readonly number[] {
  if (corners.length < 2) return middles;
  const served = [...middles];
  corners.forEach(({ atMm }, index) => {
    const next = itemAt(corners, (index + 1) % corners.length);
    const side = (next.atMm - atMm + lengthMm) % lengthMm || lengthMm;
    if (side < Math.max(SIDE_NEEDS_TAB * cutLengthMm, 4 * tabLengthMm)) return;
    const has = served.some((middle) => (middle - atMm + lengthMm) % lengthMm < side);
    if (has) return;
    const at = (atMm + side / 2) % lengthMm;
    if (bad.every((one) => around(at, one.middle, lengthMm) >= one.half)) served.push(at);
  });
  return served;
}

/** The middle of the cut that lies furthest from corners: the longest such one where several do. */
function chooseStart(middles: readonly number[], bad: readonly BadStretch[], lengthMm: number): number {
  let best = { at: 0, score: -Infinity };
  middles.forEach((middle, index) => {
    const next = itemAt(middles, (index + 1) % middles.length);
    const gap = (next - middle + lengthMm) % lengthMm || lengthMm;
    const at = (middle + gap / 2) % lengthMm;
    const clear = bad.reduce((least, one) => Math.min(least, around(at, one.middle, lengthMm)), gap);
    const score = Math.min(clear, gap / 2);
    if (score > best.score + ROUNDING) best = { at, score };
  });
  return best.at;
}

function leadingPlace(ring: readonly PointMm[], leading: PerforationOrder['leading']): number | null {
  if (!leading) return null;
  const sign = leading === 'top' ? 1 : -1;
  const least = ring.reduce((best, point) => Math.min(best, sign * point.y), Infinity);
  const lowest = ring.findIndex((point) => sign * point.y === least);
  // Of a flat leading side its middle leads.
  let last = lowest;
  while (last + 1 < ring.length && Math.abs(sign * itemAt(ring, last + 1).y - least) < LENGTH_MM) last++;
  const start = measurePolyline(ring.slice(0, lowest + 1));
  return start + measurePolyline(ring.slice(lowest, last + 1)) / 2;
}

function nearestPlace(ring: readonly PointMm[], to: PointMm): number {
  const lengthMm = measurePolyline(ring);
  const steps = 200;
  let best = { at: 0, distance: Infinity };
  for (let step = 0; step < steps; step++) {
    const at = (step / steps) * lengthMm;
    const point = pointAlong(ring, at);
    const distance = Math.hypot(point.x - to.x, point.y - to.y);
    if (distance < best.distance) best = { at, distance };
  }
  return best.at;
}

/** Distance between two places the shorter way around. */
function around(a: number, b: number, lengthMm: number): number {
  const apart = Math.abs(a - b) % lengthMm;
  return Math.min(apart, lengthMm - apart);
}
