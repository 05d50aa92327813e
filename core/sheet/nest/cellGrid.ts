import { ROUNDING } from '#core/units/rounding.ts';
import { boundPoints, type BoxMm } from '#core/geometry/box.ts';
import type { Rings } from '#core/geometry/clip.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** How large a cell is. Narrow cells cost nothing but memory; low ones cost time. */
export interface CellSize {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Cells of a shape, row by row, as runs from a first column up to and without a last one. */
export interface RunMask {
  readonly columns: number;
  readonly rows: number;
  /** Where the runs of each row begin in `runs`, counted in runs; one more at the end. */
  readonly rowStarts: Int32Array;
  /** First and last column of each run, one after the other. */
  readonly runs: Int32Array;
  /** Where the first cell's corner lies, mm. */
  readonly corner: PointMm;
  /** Rows are looked at this far from each other in turn, all of them once: what is in the way is met early. */
  readonly stride: number;
  /** Some rows with their longest run, one after the other: where one finds no gap as wide, no column will do. */
  readonly probes: Int32Array;
}

/** Rows that are probed before columns are. */
const PROBES = 12;
/** Taken cells are passed over in steps of this many, so that gaps are known to this many cells. */
const GAP_STEP = 64;

/**
 * Cells that are taken or free. Every cell knows the last taken column up to its own, so that a run of any length is
 * asked in one look.
 */
export class CellGrid {
  private readonly lastTaken: Int16Array;
  /** No row has a wider gap. */
  private readonly widestGap: Int16Array;
  /** The mask row that was in the way last: looked at first, since it is likely in the way of the next place too. */
  private hint = 0;

  /** @param columns at most 32,767 */
  constructor(
    readonly columns: number,
    readonly rows: number,
  ) {
    this.lastTaken = new Int16Array(columns * rows).fill(-1);
    this.widestGap = new Int16Array(rows).fill(columns);
  }

  clone(): CellGrid {
    const copy = new CellGrid(this.columns, this.rows);
    copy.lastTaken.set(this.lastTaken);
    copy.widestGap.set(this.widestGap);
    return copy;
  }

  /** Takes cells of one row; what lies outside is left out. */
  takeRun(row: number, from: number, to: number): void {
    if (row < 0 || row >= this.rows) return;
    const { lastTaken, columns } = this;
    const [first, end] = [Math.max(0, from), Math.min(columns, to)];
    if (first >= end) return;
    const base = row * columns;
    for (let column = first; column < end; column++) lastTaken[base + column] = column;
    for (let column = end; column < columns && (lastTaken[base + column] as number) < end - 1; column++) {
      lastTaken[base + column] = end - 1;
    }
    this.widestGap[row] = this.measureGap(base);
  }

  /** At least as wide as the widest gap of the row that begins there. */
  private measureGap(base: number): number {
    // A gap that the steps pass over is narrower than a step.
    let widest = GAP_STEP;
    for (let column = this.columns - 1; column >= 0; column -= GAP_STEP) {
      const taken = this.lastTaken[base + column] as number;
      if (taken === column) continue;
      widest = Math.max(widest, column - taken + GAP_STEP);
      column = taken;
    }
    return Math.min(widest, this.columns);
  }

  /** Takes all cells of a mask. */
  take(mask: RunMask, column: number, row: number): void {
    for (let at = 0; at < mask.rows; at++) {
      const end = mask.rowStarts[at + 1] as number;
      for (let run = mask.rowStarts[at] as number; run < end; run++) {
        this.takeRun(
          row + at,
          column + (mask.runs[2 * run] as number),
          column + (mask.runs[2 * run + 1] as number),
        );
      }
    }
  }

  /**
   * The first column from `column` on at which a mask lies free with its upper left cell in a row. Where it collides it
   * is moved past the obstacle at once.
   *
   * @returns -1 when there is none in this row
   */
  findInRow(mask: RunMask, row: number, column: number): number {
    const { probes } = mask;
    for (let at = 0; at < probes.length; at += 2) {
      if ((this.widestGap[row + (probes[at] as number)] as number) < (probes[at + 1] as number)) return -1;
    }
    const last = this.columns - mask.columns;
    let at = column;
    while (at <= last) {
      const past = this.firstCollision(mask, row, at);
      if (past < 0) return at;
      at = past;
    }
    return -1;
  }

  /** The column to which a colliding mask must move at least; -1 when nothing is in its way. */
  private firstCollision(mask: RunMask, row: number, column: number): number {
    const { rows, rowStarts, runs, stride } = mask;
    const { columns, lastTaken } = this;
    let at = this.hint < rows ? this.hint : 0;
    for (let count = 0; count < rows; count++) {
      const end = rowStarts[at + 1] as number;
      const base = (row + at) * columns + column;
      for (let run = rowStarts[at] as number; run < end; run++) {
        const start = runs[2 * run] as number;
        const taken = lastTaken[base + (runs[2 * run + 1] as number) - 1] as number;
        if (taken < column + start) continue;
        this.hint = at;
        return taken - start + 1;
      }
      at += stride;
      if (at >= rows) at -= rows;
    }
    return -1;
  }
}

/**
 * All cells that rings touch: what lies in the band of a row is the interior just inside its two edges and whatever
 * outline runs between them.
 *
 * @example maskRings([square], { widthMm: 1, heightMm: 1 }).columns // 10
 */
export function maskRings(rings: Rings, cell: CellSize): RunMask {
  const box = boundPoints(rings.flat());
  const corner = { x: box.minX, y: box.minY };
  const rows = cellsAcross(box.maxY - box.minY, cell.heightMm);
  const columns = cellsAcross(box.maxX - box.minX, cell.widthMm);
  const bands = Array.from({ length: rows }, (): Band => ({ outline: [], top: [], bottom: [] }));
  for (const ring of rings) {
    ring.forEach((a, index) => {
      const b = ring[(index + 1) % ring.length] as PointMm;
      if (a.y <= b.y) coverEdge(a, b, corner.y, cell.heightMm, bands);
      else coverEdge(b, a, corner.y, cell.heightMm, bands);
    });
  }
  const rowStarts = new Int32Array(rows + 1);
  const runs: number[] = [];
  bands.forEach(({ outline, top, bottom }, row) => {
    const pairs = [...outline, ...top.sort(ascending), ...bottom.sort(ascending)];
    runs.push(...joinRuns(pairs, corner.x, cell.widthMm, columns));
    rowStarts[row + 1] = runs.length / 2;
  });
  return {
    columns,
    rows,
    rowStarts,
    runs: Int32Array.from(runs),
    corner,
    stride: strideFor(rows),
    probes: probe(rowStarts, runs),
  };
}

/**
 * Takes the cells that a box touches; `corner` is where the grid's first cell begins, mm.
 *
 * @example ((grid) => (fillBox(grid, { minX: 0, minY: 0, maxX: 4, maxY: 2 }, { x: 0, y: 0 }, { widthMm: 1, heightMm: 1 }), grid.columns))(newGrid()) // 10
 */
export function fillBox(grid: CellGrid, box: BoxMm, corner: PointMm, cell: CellSize): void {
  const first = (value: number, size: number) => Math.floor(value / size + ROUNDING);
  const end = (value: number, size: number) => Math.ceil(value / size - ROUNDING);
  const [fromX, toX] = [box.minX - corner.x, box.maxX - corner.x];
  for (
    let row = first(box.minY - corner.y, cell.heightMm);
    row < end(box.maxY - corner.y, cell.heightMm);
    row++
  ) {
    grid.takeRun(row, first(fromX, cell.widthMm), end(toX, cell.widthMm));
  }
}

function cellsAcross(lengthMm: number, sizeMm: number): number {
  return Math.max(1, Math.ceil(lengthMm / sizeMm - ROUNDING));
}

/** What lies in one row of cells, as x in mm. */
interface Band {
  /** Pairs from and to, for every stretch of outline. */
  readonly outline: number[];
  /** Where outlines cross just below its upper edge, and just above its lower one. */
  readonly top: number[];
  readonly bottom: number[];
}

const ascending = (a: number, b: number) => a - b;

/** What an edge covers in each band it runs through, and where it crosses their edges. */
function coverEdge(
  upper: PointMm,
  lower: PointMm,
  topMm: number,
  heightMm: number,
  bands: readonly Band[],
): void {
  const lineOf = (band: number) => topMm + band * heightMm;
  let band = Math.min(bands.length - 1, Math.max(0, Math.floor((upper.y - topMm) / heightMm)));
  // By the very lines that are compared with below, so that edges that meet agree on their band.
  while (band > 0 && lineOf(band) > upper.y) band--;
  while (band < bands.length - 1 && lineOf(band + 1) <= upper.y) band++;
  const isLevel = lower.y === upper.y;
  if (isLevel && lineOf(band) === upper.y) return;
  const slope = isLevel ? 0 : (lower.x - upper.x) / (lower.y - upper.y);
  let x = upper.x;
  if (lineOf(band) === upper.y) bands[band]?.top.push(x);
  for (; band < bands.length; band++) {
    const line = lineOf(band + 1);
    const isLast = lower.y <= line || band === bands.length - 1;
    const end = isLast ? lower.x : upper.x + (line - upper.y) * slope;
    bands[band]?.outline.push(Math.min(x, end), Math.max(x, end));
    if (lower.y >= line) bands[band]?.bottom.push(end);
    if (isLast) return;
    bands[band + 1]?.top.push(end);
    x = end;
  }
}

/** Columns from pairs of x, joined where they meet, in order. */
function joinRuns(
  pairs: readonly number[],
  leftMm: number,
  widthMm: number,
  columns: number,
): readonly number[] {
  const runs: [number, number][] = [];
  for (let index = 0; index + 1 < pairs.length; index += 2) {
    const from = Math.floor(((pairs[index] as number) - leftMm) / widthMm + ROUNDING);
    const to = Math.ceil(((pairs[index + 1] as number) - leftMm) / widthMm - ROUNDING);
    // An upright edge between two columns takes neither: what lies beside it takes its own.
    if (to > from) runs.push([Math.max(0, from), Math.min(columns, to)]);
  }
  runs.sort((a, b) => a[0] - b[0]);
  const joined: number[] = [];
  for (const [from, to] of runs) {
    if (joined.length > 0 && from <= (joined.at(-1) as number)) {
      joined[joined.length - 1] = Math.max(joined.at(-1) as number, to);
    } else joined.push(from, to);
  }
  return joined;
}

/** The widest row first, then rows all over the shape. */
function probe(rowStarts: Int32Array, runs: readonly number[]): Int32Array {
  const longest = Array.from({ length: rowStarts.length - 1 }, (_, row) => {
    let most = 0;
    for (let run = rowStarts[row] as number; run < (rowStarts[row + 1] as number); run++) {
      most = Math.max(most, (runs[2 * run + 1] as number) - (runs[2 * run] as number));
    }
    return { row, most };
  });
  const spread = longest.filter(({ row }) => row % Math.ceil(longest.length / PROBES) === 0);
  const widest = longest.reduce((best, one) => (one.most > best.most ? one : best));
  return Int32Array.from([widest, ...spread].flatMap(({ row, most }) => [row, most]));
}

/** Near two fifths of all rows, with no divisor in common with them, so that every row is met once. */
function strideFor(rows: number): number {
  for (let stride = Math.max(1, Math.round(rows * 0.382)); stride > 1; stride--) {
    if (commonDivisor(stride, rows) === 1) return stride;
  }
  return 1;
}

function commonDivisor(a: number, b: number): number {
  return b === 0 ? a : commonDivisor(b, a % b);
}
