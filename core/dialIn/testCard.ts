import { AppError } from '#core/errors/appError.ts';
import { strokeFigures } from '#core/dialIn/strokeFigures.ts';
import type { TestPiece } from '#core/dialIn/testPiece.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** How one cell of a card is cut. Force and speed on the machine's own scales. */
export interface CardCell {
  readonly force: number;
  readonly speed: number;
  readonly passes: number;
}

/** One stroke of a card, mm on the sheet from its upper left corner. */
export interface CardStroke {
  readonly cell: number;
  readonly points: readonly PointMm[];
  readonly isTab: boolean;
  /** A figure beside the cell, not part of what is judged. */
  readonly isLabel: boolean;
}

/** A test card: one or more pieces side by side, each cell with its own force, speed or passes. */
export interface TestCard {
  readonly cells: readonly CardCell[];
  readonly box: BoxMm;
  readonly strokes: readonly CardStroke[];
}

const GAP_MM = 4;
const LABEL_MM = 3;

/**
 * What a card needs of room, mm.
 *
 * @example measureCard(piece, 6, 3).widthMm > measureCard(piece, 2).widthMm // true
 */
export function measureCard(piece: TestPiece, cellCount: number, columns = cellCount) {
  const across = Math.min(columns, cellCount);
  const rows = Math.ceil(cellCount / across);
  return {
    widthMm: across * piece.widthMm + (across - 1) * GAP_MM,
    heightMm: rows * (piece.heightMm + LABEL_MM + 1) + (rows - 1) * GAP_MM,
  };
}

/**
 * Lays a card out: cells from left to right in rows, the force of each below it as figures that the machine can cut
 * or draw, so that a card tells its own story after it has left the bench.
 *
 * @param corner where its upper left corner lies on the sheet, mm
 * @param columns cells in a row
 * @param labelOf the figure under a cell; its force when left out
 * @example composeCard(piece, [{ force: 90, speed: 100, passes: 1 }], { x: 0, y: 0 }).cells.length // 1
 */
export function composeCard(
  piece: TestPiece,
  cells: readonly CardCell[],
  corner: PointMm,
  columns = cells.length,
  labelOf: (cell: CardCell) => string = ({ force }) => String(Number(force.toFixed(2))),
): TestCard {
  const { widthMm, heightMm } = measureCard(piece, cells.length, columns);
  const strokes = cells.flatMap((cell, index): readonly CardStroke[] => {
    const x = corner.x + (index % columns) * (piece.widthMm + GAP_MM);
    const y = corner.y + Math.floor(index / columns) * (piece.heightMm + LABEL_MM + 1 + GAP_MM);
    const shift = (points: readonly PointMm[]) => points.map((point) => ({ x: point.x + x, y: point.y + y }));
    const once = piece.lines.map(({ points, isTab }) => ({
      cell: index,
      points: shift(points),
      isTab,
      isLabel: false,
    }));
    const repeats = Array.from({ length: cell.passes }, () => once).flat();
    const figures = strokeFigures(labelOf(cell), { x, y: y + piece.heightMm + 1 }, LABEL_MM);
    return [...repeats, ...figures.map((points) => ({ cell: index, points, isTab: false, isLabel: true }))];
  });
  return {
    cells,
    strokes,
    box: { minX: corner.x, minY: corner.y, maxX: corner.x + widthMm, maxY: corner.y + heightMm },
  };
}

/** A scrap or a sheet that cards are cut from: its size and what is taken, mm. */
export interface Scrap {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marginMm: number;
  /** The job, its marks with their keep-out, and the cards cut before. */
  readonly taken: readonly BoxMm[];
}

/** Room between a card and anything else, mm. */
const CLEAR_MM = 3;
const STEP_MM = 1;

/**
 * A free place for a card, as near to the lower right corner as it goes: jobs start at the upper left, so the rest of
 * the sheet stays in one piece. Several loads fill the same scrap.
 *
 * @returns its upper left corner, or `null` when there is no room for it
 * @throws AppError `badInput` for a scrap of no size
 * @example findPlace({ widthMm: 20, heightMm: 20 }, { widthMm: 10, heightMm: 10, taken: [] }) // null
 */
export function findPlace(
  size: { readonly widthMm: number; readonly heightMm: number },
  scrap: Scrap,
): PointMm | null {
  const { widthMm, heightMm, marginMm, taken } = scrap;
  if (!(widthMm > 0 && heightMm > 0)) {
    throw new AppError('badInput', `a scrap of ${widthMm} × ${heightMm} mm is nothing to cut from`);
  }
  const lastX = widthMm - marginMm - size.widthMm;
  const lastY = heightMm - marginMm - size.heightMm;
  for (let y = lastY; y >= marginMm; y -= STEP_MM) {
    for (let x = lastX; x >= marginMm; x -= STEP_MM) {
      const box = { minX: x, minY: y, maxX: x + size.widthMm, maxY: y + size.heightMm };
      const blocker = taken.find((other) => isNear(box, other));
      if (!blocker) return { x, y };
      // Straight past what is in the way, to where the card would just clear it.
      x = Math.min(x, Math.ceil(blocker.minX - CLEAR_MM - size.widthMm) + STEP_MM);
    }
  }
  return null;
}

function isNear(a: BoxMm, b: BoxMm): boolean {
  return (
    a.minX < b.maxX + CLEAR_MM &&
    a.maxX > b.minX - CLEAR_MM &&
    a.minY < b.maxY + CLEAR_MM &&
    a.maxY > b.minY - CLEAR_MM
  );
}

/**
 * One cell of a card alone, where it lies.
 *
 * @param cell from 0
 * @throws AppError `notFound` for a cell that the card has not
 * @example onlyCell(testCard, 0).cells.length // 1
 */
export function onlyCell(card: TestCard, cell: number): TestCard {
  const own = card.cells[cell];
  if (!own) throw new AppError('notFound', `this card has ${card.cells.length} cells, and none ${cell + 1}`);
  const strokes = card.strokes.filter((stroke) => stroke.cell === cell);
  return { ...card, cells: [own], strokes: strokes.map((stroke) => ({ ...stroke, cell: 0 })) };
}
