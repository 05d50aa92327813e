import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { cutTabs } from '#core/perforation/cutTabs.ts';
import { findCorners } from '#core/perforation/findCorners.ts';
import { estimateHolding, uncutOf } from '#core/perforation/holding.ts';
import { placeTabs, type Perforation } from '#core/perforation/placeTabs.ts';
import { pointAlong } from '#core/geometry/pointAlong.ts';

const at = (x: number, y: number): PointMm => ({ x, y });
const rectangle = (width: number, height: number) => [
  at(0, 0),
  at(width, 0),
  at(width, height),
  at(0, height),
  at(0, 0),
];
const circle = (radius: number) =>
  Array.from({ length: 181 }, (_, index) =>
    at(
      radius + radius * Math.cos((index * Math.PI) / 90),
      radius + radius * Math.sin((index * Math.PI) / 90),
    ),
  );
const order = { cutLengthMm: 9, tabLengthMm: 1, cornerClearanceMm: 3, leading: null, thumb: null } as const;
const tabsOf = (placed: Perforation) => (placed.kind === 'tabs' ? placed.tabs : []);

describe('findCorners', () => {
  it('finds the four of a rectangle at their places, and none on a circle', () => {
    expect(findCorners(rectangle(40, 20)).map(({ atMm }) => Math.round(atMm))).toEqual([0, 40, 60, 100]);
    expect(findCorners(circle(20))).toEqual([]);
  });

  it('takes a rounded corner tighter than a tab for one', () => {
    const ring = [...circle(0.6)];
    expect(findCorners(ring).length).toBeGreaterThan(0);
  });
});

describe('placeTabs', () => {
  it('divides a circle into a whole number of equal periods', () => {
    const placed = placeTabs(circle(20), order);
    const starts = tabsOf(placed).map(({ fromMm }) => fromMm);
    const gaps = starts.slice(1).map((start, index) => start - starts[index]!);
    expect(starts).toHaveLength(13);
    for (const gap of gaps) expect(gap).toBeCloseTo(measurePolyline(circle(20)) / 13, 6);
  });

  it('keeps tabs off corners, gives every long side one, and starts in a cut', () => {
    const ring = rectangle(40, 25);
    const placed = placeTabs(ring, order);
    expect(placed.kind).toBe('tabs');
    const middles = tabsOf(placed).map(({ fromMm, toMm }) => (fromMm + toMm) / 2);
    for (const corner of [0, 40, 65, 105, 130]) {
      for (const middle of middles) expect(Math.abs(middle - corner)).toBeGreaterThanOrEqual(3.4);
    }
    for (const [from, to] of [
      [0, 40],
      [40, 65],
      [65, 105],
      [105, 130],
    ] as const) {
      expect(middles.some((middle) => middle > from && middle < to)).toBe(true);
    }
    const start = placed.kind === 'tabs' ? placed.startMm : -1;
    expect(tabsOf(placed).every(({ fromMm, toMm }) => start < fromMm || start > toMm)).toBe(true);
  });

  it('keeps a tab at the leading edge and none where the thumb pushes', () => {
    const ring = circle(20);
    const thumb = at(20, 0);
    const placed = tabsOf(placeTabs(ring, { ...order, thumb }));
    const nearest = Math.min(
      ...placed.map(({ fromMm, toMm }) => {
        const middle = pointAlong(ring, (fromMm + toMm) / 2);
        return Math.hypot(middle.x - thumb.x, middle.y - thumb.y);
      }),
    );
    expect(nearest).toBeGreaterThan(4);
    const led = tabsOf(placeTabs(rectangle(30, 30), { ...order, leading: 'bottom' }));
    expect(led.some(({ fromMm }) => fromMm > 64 && fromMm < 86)).toBe(true);
  });

  it('gives small rings fewer tabs, and the smallest none, with the reason', () => {
    expect(tabsOf(placeTabs(circle(3), order))).toHaveLength(3);
    expect(placeTabs(circle(0.6), order)).toMatchObject({ kind: 'kissOnly', reason: /no room for two tabs/ });
  });

  it('never lets tabs overlap and never loses cut between them, on random rectangles', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 200, noNaN: true }),
        fc.double({ min: 4, max: 200, noNaN: true }),
        fc.double({ min: 0.4, max: 2, noNaN: true }),
        fc.double({ min: 4, max: 20, noNaN: true }),
        (width, height, tabLengthMm, cutLengthMm) => {
          const ring = rectangle(width, height);
          const placed = placeTabs(ring, { ...order, tabLengthMm, cutLengthMm });
          const tabs = tabsOf(placed);
          tabs.forEach((tab, index) => {
            const next = tabs[index + 1];
            if (next) expect(next.fromMm - tab.toMm).toBeGreaterThan(0);
          });
          if (placed.kind !== 'tabs') return;
          const stretches = cutTabs(ring, placed.tabs, placed.startMm, 0);
          const total = stretches.reduce((sum, { points }) => sum + measurePolyline(points), 0);
          expect(total).toBeCloseTo(measurePolyline(ring), 3);
          const left = stretches.filter(({ isTab }) => isTab);
          expect(left).toHaveLength(tabs.length);
          stretches.slice(1).forEach(({ points }, index) => {
            const end = stretches[index]!.points.at(-1)!;
            expect(Math.hypot(points[0]!.x - end.x, points[0]!.y - end.y)).toBeLessThan(1e-6);
          });
        },
      ),
      { seed: 81, numRuns: 200 },
    );
  });
});

describe('holding', () => {
  const piece = { tabs: 12, tabLengthMm: 1, areaMm2: 2000 };
  const sheet = { bearsNPerMm: 3, grammageGPerM2: 200, cutForceGf: 200, accelerationMmPerS2: 3000 };

  it('is what each carrying tab bears: 3 N, of 3.6 tabs (mechanics of a strip)', () => {
    const { holdN, releaseN } = estimateHolding(piece, sheet);
    expect(holdN).toBeCloseTo(3 * 3.6, 9);
    expect(releaseN).toBeCloseTo(6, 9);
  });

  it('pulls by drag of the blade and by mass times acceleration: 0.7 × 200 gf and 0.4 g at 3 m/s²', () => {
    const { dragN, jerkN } = estimateHolding(piece, sheet);
    expect(dragN).toBeCloseTo(0.7 * 200 * 9.80665e-3, 9);
    expect(jerkN).toBeCloseTo(0.0004 * 3, 9);
  });

  it('holds better and pops worse with longer tabs', () => {
    const short = estimateHolding(piece, sheet);
    const longer = estimateHolding({ ...piece, tabLengthMm: 2 }, sheet);
    expect(longer.holdIndex).toBeGreaterThan(short.holdIndex);
    expect(longer.popIndex).toBeLessThan(short.popIndex);
  });

  it('counts the liner under a sticker and half of a single sheet', () => {
    const layer = (role: 'face' | 'liner' | 'body', caliperUm: number) => ({
      role,
      caliperUm,
      isMeasured: true,
    });
    expect(uncutOf([layer('face', 80), layer('liner', 140)], 'printableVinyl').uncutUm).toBe(140);
    expect(uncutOf([layer('body', 300)], 'cardstock').uncutUm).toBe(150);
  });
});
