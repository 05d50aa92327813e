import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import { slicePolyline } from '#core/geometry/slicePolyline.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { Tab } from '#core/perforation/placeTabs.ts';

/** One stretch of a perforated ring. */
export interface TabbedStretch {
  readonly points: readonly PointMm[];
  readonly isTab: boolean;
}

/**
 * Cuts a ring into stretches that follow one another without a lift: cut, tab, cut, … from `startMm` around and past it
 * by the overcut.
 *
 * @param ring ends on its first point
 * @param startMm in a cut, not in a tab
 */
export function cutTabs(
  ring: readonly PointMm[],
  tabs: readonly Tab[],
  startMm: number,
  overcutMm: number,
): readonly TabbedStretch[] {
  const total = measurePolyline(ring);
  const twice = [...ring, ...ring.slice(1)];
  const from = tabs
    .map(({ fromMm, toMm }) => {
      const shift = ((((fromMm - startMm) % total) + total) % total) - (fromMm - startMm);
      return { fromMm: fromMm - startMm + shift, toMm: toMm - startMm + shift };
    })
    .sort((a, b) => a.fromMm - b.fromMm);
  const stretches: TabbedStretch[] = [];
  const add = (start: number, end: number, isTab: boolean) => {
    if (end - start < 1e-6) return;
    const share = (mm: number) => (startMm + mm) / (2 * total);
    stretches.push({ points: slicePolyline(twice, share(start), share(end)), isTab });
  };
  let at = 0;
  for (const tab of from) {
    add(at, tab.fromMm, false);
    add(Math.max(at, tab.fromMm), tab.toMm, true);
    at = Math.max(at, tab.toMm);
  }
  add(at, total, false);
  const first = from[0]?.fromMm ?? total;
  add(total, total + Math.min(overcutMm, first), false);
  return joinLast(stretches);
}

/** The overcut goes on from the last cut: one stretch, not two. */
function joinLast(stretches: readonly TabbedStretch[]): readonly TabbedStretch[] {
  const last = stretches.at(-1);
  const before = stretches.at(-2);
  if (!last || !before || last.isTab || before.isTab) return stretches;
  return [...stretches.slice(0, -2), { points: [...before.points, ...last.points.slice(1)], isTab: false }];
}
