import { describe, expect, it } from 'vitest';
import { findTouching } from '#core/sheet/hands/findTouching.ts';
import {
  movedWith,
  placementAt,
  shiftPlacements,
  snapShift,
  turnPlacements,
  type HandSheet,
} from '#core/sheet/hands/movePieces.ts';
import { PLAIN_LAYOUT } from '#core/sheet/chooseSheet.ts';

const square = (side: number) => [
  { x: 0, y: 0 },
  { x: side, y: 0 },
  { x: side, y: side },
  { x: 0, y: side },
];
const piece = (index: number, side: number, drawing: number | null) => ({
  index,
  drawing,
  box: { minX: 0, minY: 0, maxX: side, maxY: side },
  silhouette: [square(side)],
});
const pieces = [piece(0, 10, 0), piece(1, 60, null)];
const at = (own: number, xMm: number, yMm: number, sheet = 0) => ({
  piece: own,
  sheet,
  xMm,
  yMm,
  turnDeg: 0,
});
const placements = [at(1, 40, 40), at(0, 30, 30), at(0, 50, 30), at(0, 120, 30), at(0, 30, 30, 1)];
const on: HandSheet = { pieces, placements, sheetIndex: 0 };
const sheet = { name: 'A4', widthMm: 210, heightMm: 297, marginMm: 6 };
const snap = (moved: readonly number[], xMm: number, yMm: number) =>
  snapShift(on, moved, { xMm, yMm }, { sheet, spacingMm: 2, withinMm: 1 });

describe('pieces in hand', () => {
  it('are taken before the card they lie on, and the card takes what lies on it', () => {
    expect(placementAt(on, { x: 31, y: 31 })).toBe(1);
    expect(placementAt(on, { x: 15, y: 60 })).toBe(0);
    expect(placementAt(on, { x: 200, y: 200 })).toBeNull();
    expect(movedWith(on, 0)).toEqual([0, 1, 2]);
    expect(movedWith(on, 1)).toEqual([1]);
  });

  it('snap to edges, to a spacing beside a neighbour, and to the margin; and to nothing else', () => {
    // Its left edge at 115 comes to 57.6: a spacing beside the right edge of a neighbour at 55.
    expect(snap([3], -57.4, 0).xMm).toBeCloseTo(-58, 9);
    expect(snap([3], -108.5, 0).xMm).toBeCloseTo(-109, 9);
    expect(snap([3], 20.3, 100.3)).toEqual({ xMm: 20.3, yMm: 100.3 });
  });

  it('are as somebody laid them from then on; turned, a card takes its pieces around with it', () => {
    const layout = { ...PLAIN_LAYOUT, arrangement: 'rows' as const, placements };
    const moved = shiftPlacements(layout, [0, 1], { xMm: 5, yMm: -1 });
    expect(moved.arrangement).toBeUndefined();
    expect(moved.placements.map(({ xMm }) => xMm)).toEqual([45, 35, 50, 120, 30]);
    const turned = turnPlacements(layout, [0, 1, 2], 90).placements;
    expect(turned[1]).toMatchObject({ xMm: 50, yMm: 30, turnDeg: 90 });
    expect(turned[2]).toMatchObject({ xMm: 50, yMm: 50 });
  });

  it('are found where they lie over each other or over the edge of their card', () => {
    expect(findTouching(pieces, { placements })).toEqual([]);
    expect(findTouching(pieces, { placements: [at(0, 20, 20), at(0, 26, 20), at(0, 60, 20)] })).toEqual([
      0, 1,
    ]);
    expect(findTouching(pieces, { placements: [at(0, 20, 20), at(0, 26, 20, 1)] })).toEqual([]);
    expect(findTouching(pieces, { placements: [at(1, 40, 40), at(0, 70, 40)] })).toEqual([0, 1]);
  });
});
