import { joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import { mapPoint } from '#core/geometry/affine.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { affineOf, placedBox, type Layout, type Placement } from '#core/sheet/layout.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';

/** A piece as a hand takes it. */
interface HandPiece {
  readonly index: number;
  readonly box: BoxMm;
  /** The number of its drawing; `null` for a carrier, whose pieces go with it. */
  readonly drawing: number | null;
}

/** Where placed pieces lie, and what they are. */
export interface HandSheet {
  readonly pieces: readonly HandPiece[];
  readonly placements: readonly Placement[];
  readonly sheetIndex: number;
}

/**
 * The placement that a point of a sheet lies in: the smallest, so that a piece is taken before the card it lies on.
 *
 * @returns its place among the placements, or `null`
 * @example placementAt({ pieces: [], placements: [], sheetIndex: 0 }, { x: 1, y: 1 }) // null
 */
export function placementAt({ pieces, placements, sheetIndex }: HandSheet, { x, y }: PointMm): number | null {
  let best: { readonly at: number; readonly area: number } | null = null;
  for (const [at, placement] of placements.entries()) {
    const box = placement.sheet === sheetIndex ? placedBox(placement, pieces) : null;
    if (!box || x < box.minX || x > box.maxX || y < box.minY || y > box.maxY) continue;
    const area = (box.maxX - box.minX) * (box.maxY - box.minY);
    if (!best || area < best.area) best = { at, area };
  }
  return best?.at ?? null;
}

/**
 * What moves when a placement is taken: itself, and what lies on it where it is a card.
 *
 * @example movedWith({ pieces: [], placements: [], sheetIndex: 0 }, 0) // [0]
 */
export function movedWith({ pieces, placements }: HandSheet, at: number): readonly number[] {
  const taken = placements[at];
  const piece = taken && pieces[taken.piece];
  if (!taken || piece?.drawing !== null) return [at];
  const card = placedBox(taken, pieces);
  const on = placements.flatMap(({ sheet, piece: own, xMm, yMm }, index) => {
    if (!card || sheet !== taken.sheet || pieces[own]?.drawing === null) return [];
    const isOn = xMm >= card.minX && xMm <= card.maxX && yMm >= card.minY && yMm <= card.maxY;
    return isOn ? [index] : [];
  });
  return [at, ...on];
}

/** A way to go, mm. */
export interface Shift {
  readonly xMm: number;
  readonly yMm: number;
}

/**
 * A move that ends where an edge meets that of a neighbour, a spacing beside it, or the margin, when it nearly does.
 *
 * @param moved the placements that move, by their places
 * @param withinMm how near is nearly
 * @example snapShift({ pieces: [], placements: [], sheetIndex: 0 }, [], { xMm: 1, yMm: 2 }, { sheet, spacingMm: 2, withinMm: 1 }) // { xMm: 1, yMm: 2 }
 */
export function snapShift(
  { pieces, placements, sheetIndex }: HandSheet,
  moved: readonly number[],
  shift: Shift,
  {
    sheet,
    spacingMm,
    withinMm,
  }: { readonly sheet: Sheet; readonly spacingMm: number; readonly withinMm: number },
): Shift {
  const boxOf = (placement: Placement) => placedBox(placement, pieces);
  const isMoved = new Set(moved);
  const own = moved.flatMap((at) => {
    const placement = placements[at];
    const box = placement ? boxOf(placement) : null;
    return box ? [box] : [];
  });
  if (own.length === 0) return shift;
  const box = joinBoxes(own);
  const others = placements.flatMap((placement, at) => {
    const other = placement.sheet === sheetIndex && !isMoved.has(at) ? boxOf(placement) : null;
    return other ? [other] : [];
  });
  const { widthMm, heightMm, marginMm } = sheet;
  const along = (low: 'minX' | 'minY', high: 'maxX' | 'maxY', sizeMm: number, byMm: number): number => {
    const [from, to] = [box[low] + byMm, box[high] + byMm];
    const starts = [marginMm, ...others.flatMap((other) => [other[low], other[high] + spacingMm])];
    const ends = [sizeMm - marginMm, ...others.flatMap((other) => [other[high], other[low] - spacingMm])];
    const steps = [...starts.map((at) => at - from), ...ends.map((at) => at - to)];
    const least = steps.reduce((best, step) => (Math.abs(step) < Math.abs(best) ? step : best), Infinity);
    return Math.abs(least) <= withinMm ? byMm + least : byMm;
  };
  return {
    xMm: along('minX', 'maxX', widthMm, shift.xMm),
    yMm: along('minY', 'maxY', heightMm, shift.yMm),
  };
}

/**
 * A layout with some of its placements moved. It is as somebody laid it from then on.
 *
 * @example shiftPlacements({ ...layout, placements: [{ piece: 0, sheet: 0, xMm: 1, yMm: 1, turnDeg: 0 }] }, [0], { xMm: 2, yMm: 0 }).placements[0].xMm // 3
 */
export function shiftPlacements(layout: Layout, moved: readonly number[], { xMm, yMm }: Shift): Layout {
  const isMoved = new Set(moved);
  const placements = layout.placements.map((placement, at) =>
    isMoved.has(at) ? { ...placement, xMm: placement.xMm + xMm, yMm: placement.yMm + yMm } : placement,
  );
  return { ...layout, arrangement: undefined, placements };
}

/**
 * A layout with some of its placements turned to the right about the middle of the first.
 *
 * @example turnPlacements({ ...layout, placements: [{ piece: 0, sheet: 0, xMm: 1, yMm: 1, turnDeg: 0 }] }, [0], 90).placements[0].turnDeg // 90
 */
export function turnPlacements(layout: Layout, moved: readonly number[], byDeg: number): Layout {
  const middle = layout.placements[moved[0] ?? -1];
  if (!middle) return layout;
  const turn = affineOf(
    { minX: middle.xMm, minY: middle.yMm, maxX: middle.xMm, maxY: middle.yMm },
    { xMm: middle.xMm, yMm: middle.yMm, turnDeg: byDeg },
  );
  const isMoved = new Set(moved);
  const placements = layout.placements.map((placement, at) => {
    if (!isMoved.has(at)) return placement;
    const { x, y } = mapPoint(turn, { x: placement.xMm, y: placement.yMm });
    return { ...placement, xMm: x, yMm: y, turnDeg: (placement.turnDeg + byDeg) % 360 };
  });
  return { ...layout, arrangement: undefined, placements };
}

/**
 * A layout without some of its placements.
 *
 * @example dropPlacements({ ...layout, placements: [{ piece: 0, sheet: 0, xMm: 1, yMm: 1, turnDeg: 0 }] }, [0]).placements // []
 */
export function dropPlacements(layout: Layout, dropped: readonly number[]): Layout {
  const isDropped = new Set(dropped);
  const placements = layout.placements.filter((_, at) => !isDropped.has(at));
  return { ...layout, arrangement: undefined, placements };
}
