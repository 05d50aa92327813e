import { itemAt } from '#core/collections/itemAt.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import { ROUNDING } from '#core/units/rounding.ts';
import { distanceMm, mixPoints, type PointMm } from '#core/geometry/point.ts';
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
 * @example cutTabs(square, [], 0, 0).length // 1
 */
export function cutTabs(
  ring: readonly PointMm[],
  tabs: readonly Tab[],
  startMm: number,
  overcutMm: number,
): readonly TabbedStretch[] {
  const way = new RingWay(ring);
  const total = way.lengthMm;
  const from = tabs
    .map(({ fromMm, toMm }) => {
      const along = (((fromMm - startMm) % total) + total) % total;
      return { fromMm: along, toMm: along + toMm - fromMm };
    })
    .sort((a, b) => a.fromMm - b.fromMm);
  const stretches: TabbedStretch[] = [];
  const add = (start: number, end: number, isTab: boolean) => {
    if (end - start >= LENGTH_MM)
      stretches.push({ points: way.slice(startMm + start, startMm + end), isTab });
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

/** A ring with the way from its start to every point, so that pieces of it are cut without measuring it again. */
class RingWay {
  readonly lengthMm: number;
  private readonly atMm: Float64Array;

  constructor(private readonly ring: readonly PointMm[]) {
    this.atMm = new Float64Array(ring.length);
    for (let index = 1; index < ring.length; index++) {
      const step = distanceMm(itemAt(ring, index - 1), itemAt(ring, index));
      this.atMm[index] = itemAt(this.atMm, index - 1) + step;
    }
    this.lengthMm = itemAt(this.atMm, ring.length - 1);
  }

  /** The stretch between two places, which may lie beyond the end, where the ring goes on. */
  slice(fromMm: number, toMm: number): readonly PointMm[] {
    const points = [this.pointAt(fromMm)];
    const round = Math.floor(fromMm / this.lengthMm);
    let turn = round * this.lengthMm;
    let index = this.segmentAt(fromMm - turn) + 1;
    for (;;) {
      if (index >= this.ring.length) {
        index = 1;
        turn += this.lengthMm;
      }
      const place = turn + itemAt(this.atMm, index);
      if (place >= toMm - ROUNDING) break;
      if (place > fromMm + ROUNDING) points.push(itemAt(this.ring, index));
      index++;
    }
    points.push(this.pointAt(toMm));
    return points;
  }

  private pointAt(mm: number): PointMm {
    const along = ((mm % this.lengthMm) + this.lengthMm) % this.lengthMm;
    const index = this.segmentAt(along);
    const [from, to] = [itemAt(this.atMm, index), itemAt(this.atMm, index + 1)];
    const share = to > from ? (along - from) / (to - from) : 0;
    return mixPoints(itemAt(this.ring, index), itemAt(this.ring, index + 1), share);
  }

  /** The last segment that begins at or before a place, by halving. */
  private segmentAt(mm: number): number {
    let [low, high] = [0, this.ring.length - 2];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (itemAt(this.atMm, middle) <= mm) low = middle;
      else high = middle - 1;
    }
    return low;
  }
}

/** The overcut goes on from the last cut: one stretch, not two. */
function joinLast(stretches: readonly TabbedStretch[]): readonly TabbedStretch[] {
  const last = stretches.at(-1);
  const before = stretches.at(-2);
  if (!last || !before || last.isTab || before.isTab) return stretches;
  return [...stretches.slice(0, -2), { points: [...before.points, ...last.points.slice(1)], isTab: false }];
}
