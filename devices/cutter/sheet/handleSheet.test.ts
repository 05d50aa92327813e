import { describe, expect, it } from 'vitest';
import type { CutStroke } from '#devices/cutter/sheet/cutStroke.ts';
import { handleSheet } from '#devices/cutter/sheet/handleSheet.ts';
import type { SheetTruth } from '#devices/cutter/sheet/sheetTruth.ts';

const truth: SheetTruth = {
  faceGf: 90,
  stackGf: 200,
  isLayered: true,
  toLinerUm: 105,
  totalUm: 245,
  tabNPerMm: 4,
  creaseGf: 300,
};
const spot = (xMm: number, yMm: number) => ({ xMm, yMm });
const stroke = (path: CutStroke['path'], grade: number, forceGf = 210): CutStroke => ({
  path,
  spans: [{ from: 0, to: 1, grade }],
  seat: 1,
  forceGf,
  isPressed: false,
});

/** A square of 40 mm: each side cut with a tab in its middle, kissed or left whole. */
function square(tabMm: number, tabs: 'kissed' | 'whole' | 'none'): readonly CutStroke[] {
  const corners = [spot(0, 0), spot(40, 0), spot(40, 40), spot(0, 40), spot(0, 0)];
  return corners.slice(1).flatMap((to, index) => {
    const from = corners[index]!;
    const at = (share: number) =>
      spot(from.xMm + (to.xMm - from.xMm) * share, from.yMm + (to.yMm - from.yMm) * share);
    if (tabs === 'none') return [stroke([from, to], 7)];
    const [a, b] = [0.5 - tabMm / 80, 0.5 + tabMm / 80];
    const tab = tabs === 'kissed' ? [stroke([at(a), at(b)], 3, 90)] : [];
    return [stroke([from, at(a)], 7), ...tab, stroke([at(b), to], 7)];
  });
}
const held = (strokes: readonly CutStroke[], change: Partial<SheetTruth> = {}) =>
  handleSheet(strokes, { ...truth, ...change }).held;

describe('a piece pushed out by a thumb', () => {
  it('falls out without tabs, stays and comes with good ones, tears with long ones', () => {
    expect(held(square(1, 'none'))).toBe(0);
    expect(held(square(1, 'kissed'))).toBe(2);
    expect(held(square(2.9, 'kissed'))).toBe(3);
    expect(held(square(0.3, 'kissed'))).toBe(0);
  });

  it('is held alike by tabs that were kissed and by tabs left whole', () => {
    expect(held(square(1, 'whole'))).toBe(held(square(1, 'kissed')));
  });

  it('depends on the sheet: one that bears three times as much tears where this one holds', () => {
    expect(held(square(1, 'kissed'), { tabNPerMm: 14 })).toBe(4);
  });

  it('of a kiss alone, or an open line, is none', () => {
    expect(held([stroke([spot(0, 0), spot(40, 0), spot(40, 40), spot(0, 0)], 3)])).toBeNull();
    expect(held([stroke([spot(0, 0), spot(40, 0)], 7)])).toBeNull();
    expect(held([])).toBeNull();
  });
});

describe('a crease that is folded', () => {
  const pressed = (forceGf: number, times: number) =>
    handleSheet(
      Array.from({ length: times }, () => ({
        ...stroke([spot(2, 6), spot(38, 6)], 0, forceGf),
        isPressed: true,
      })),
      truth,
    ).folded;

  it('shows no line when pressed far too lightly and cracks when pressed far too hard', () => {
    expect([120, 200, 300, 420, 600].map((force) => pressed(force, 1))).toEqual([0, 1, 2, 3, 4]);
  });

  it('is deeper after more passes', () => {
    expect(pressed(230, 1)).toBe(1);
    expect(pressed(230, 3)).toBe(2);
  });
});
