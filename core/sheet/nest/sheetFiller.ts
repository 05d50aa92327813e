import { itemAt } from '#core/collections/itemAt.ts';
import type { CellGrid, CellSize, RunMask } from '#core/sheet/nest/cellGrid.ts';
import type { Try } from '#core/sheet/nest/nestTries.ts';

/** One piece turned one way, ready to be tried anywhere. */
export interface Turned {
  readonly piece: number;
  readonly turnDeg: number;
  readonly mask: RunMask;
}

/** One side to fill from: along rows, or along columns by exchanging x and y. */
export interface Side {
  readonly empty: CellGrid;
  readonly corner: { readonly x: number; readonly y: number };
  readonly turned: readonly (readonly Turned[])[];
}

/** Where a mask lies free; unless that is sure, from where on it has to be looked for. */
interface Place {
  readonly column: number;
  readonly row: number;
  isSure: boolean;
}

/** A piece at the place found for it. */
export interface Found {
  readonly index: number;
  readonly turned: Turned;
  readonly xMm: number;
  readonly yMm: number;
}

/** A place further along the row costs this share of one further down. */
const TIE_SHARE = 1e-3;

/** Fills one sheet. What was taken stays taken, so that the search of a turned piece goes on where it last ended. */
export class SheetFiller {
  private usedRows = 0;
  private readonly grid: CellGrid;
  /** What a place further along the row costs, in rows: it only settles ties. */
  private readonly columnCost: number;
  private readonly searched = new Map<RunMask, Place | null>();

  constructor(
    private readonly side: Side,
    private readonly how: Try,
    private readonly cell: CellSize,
    private readonly areas: readonly number[],
  ) {
    this.grid = side.empty.clone();
    this.columnCost = (TIE_SHARE * cell.widthMm) / cell.heightMm;
  }

  get usedShare(): number {
    return this.usedRows / this.grid.rows;
  }

  /** Takes the best place that any turn of any candidate finds, or tells that there is none. */
  find(candidates: readonly number[]): Found | null {
    let best: { index: number; turned: Turned; column: number; row: number; cost: number } | null = null;
    const { endWeight, sizeWeight, favours } = this.how;
    const { heightMm } = this.cell;
    for (const index of candidates) {
      const edge = Math.sqrt(itemAt(this.areas, index)) / heightMm;
      const favour = candidates.length > 1 ? sizeWeight * edge + itemAt(favours, index) / heightMm : 0;
      for (const turned of itemAt(this.side.turned, index)) {
        const place = this.search(turned.mask);
        if (!place) continue;
        const cost = place.row + endWeight * turned.mask.rows - favour + place.column * this.columnCost;
        if (!best || cost < best.cost) best = { index, turned, ...place, cost };
      }
    }
    if (!best) return null;
    const { index, turned, column, row } = best;
    const { corner } = this.side;
    const { cell } = this;
    this.grid.take(turned.mask, column, row);
    this.doubt(turned.mask, column, row);
    this.usedRows = Math.max(this.usedRows, row + turned.mask.rows);
    return {
      index,
      turned,
      xMm: corner.x + column * cell.widthMm - turned.mask.corner.x,
      yMm: corner.y + row * cell.heightMm - turned.mask.corner.y,
    };
  }

  /** The first free place of a mask. What was found stands until something is put over it. */
  private search(mask: RunMask): Place | null {
    const before = this.searched.get(mask);
    if (before === null || before?.isSure) return before;
    const lastRow = this.grid.rows - mask.rows;
    let column = before?.column ?? 0;
    for (let row = before?.row ?? 0; row <= lastRow; row++) {
      const free = this.grid.findInRow(mask, row, column);
      if (free >= 0) {
        const place = { column: free, row, isSure: true };
        this.searched.set(mask, place);
        return place;
      }
      column = 0;
    }
    this.searched.set(mask, null);
    return null;
  }

  /** Places that reach into the box of what was just put down are looked for anew. */
  private doubt(put: RunMask, column: number, row: number): void {
    for (const [mask, place] of this.searched) {
      if (
        place &&
        place.column < column + put.columns &&
        column < place.column + mask.columns &&
        place.row < row + put.rows &&
        row < place.row + mask.rows
      ) {
        place.isSure = false;
      }
    }
  }
}
