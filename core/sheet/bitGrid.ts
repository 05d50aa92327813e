import { boundPoints, type BoxMm } from '#core/geometry/box.ts';
import type { Rings } from '#core/geometry/clip.ts';
import type { PointMm } from '#core/geometry/point.ts';

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
}

/** Square cells that are taken or free, a bit each, 32 to a word, row by row. */
export class BitGrid {
  private readonly rowWords: number;
  private readonly words: Int32Array;
  /** The mask row that was in the way last: looked at first, since its neighbours are likely in the way too. */
  private hint = 0;

  constructor(
    readonly columns: number,
    readonly rows: number,
  ) {
    this.rowWords = Math.ceil(columns / 32);
    this.words = new Int32Array(this.rowWords * rows);
  }

  clone(): BitGrid {
    const copy = new BitGrid(this.columns, this.rows);
    copy.words.set(this.words);
    return copy;
  }

  /** Takes cells of one row; what lies outside is left out. */
  takeRun(row: number, from: number, to: number): void {
    if (row < 0 || row >= this.rows) return;
    const [first, last] = [Math.max(0, from), Math.min(this.columns, to) - 1];
    for (let word = first >> 5; word <= last >> 5 && first <= last; word++) {
      const at = row * this.rowWords + word;
      this.words[at] = (this.words[at] as number) | bitsBetween(first, last, word);
    }
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
    const { rows, rowStarts, runs } = mask;
    const from = this.hint < rows ? this.hint : 0;
    for (let count = 0; count < rows; count++) {
      const at = from + count < rows ? from + count : from + count - rows;
      const end = rowStarts[at + 1] as number;
      for (let run = rowStarts[at] as number; run < end; run++) {
        const start = runs[2 * run] as number;
        const taken = this.lastTaken(row + at, column + start, column + (runs[2 * run + 1] as number) - 1);
        if (taken < 0) continue;
        this.hint = at;
        return taken - start + 1;
      }
    }
    return -1;
  }

  /** The last taken column between two of a row, both included; -1 for none. */
  private lastTaken(row: number, first: number, last: number): number {
    const base = row * this.rowWords;
    for (let word = last >> 5; word >= first >> 5; word--) {
      const bits = (this.words[base + word] as number) & bitsBetween(first, last, word);
      if (bits !== 0) return word * 32 + 31 - Math.clz32(bits);
    }
    return -1;
  }
}

/** The bits of a word that lie between two columns, both included. */
function bitsBetween(first: number, last: number, word: number): number {
  const low = Math.max(0, first - word * 32);
  const high = Math.min(31, last - word * 32);
  return (-1 << low) & (-1 >>> (31 - high));
}

/**
 * The cells whose middles lie within rings. To cover every cell that a shape touches, offset it outwards by 0.71 of a
 * cell first.
 *
 * @param cellMm edge of a cell, above 0
 */
export function maskRings(rings: Rings, cellMm: number): RunMask {
  const box = boundPoints(rings.flat());
  const columns = Math.max(1, Math.ceil((box.maxX - box.minX) / cellMm));
  const rows = Math.max(1, Math.ceil((box.maxY - box.minY) / cellMm));
  const corner = { x: box.minX, y: box.minY };
  const rowStarts = new Int32Array(rows + 1);
  const runs: number[] = [];
  for (let row = 0; row < rows; row++) {
    const y = corner.y + (row + 0.5) * cellMm;
    const crossings = rings.flatMap((ring) => crossingsAt(ring, y)).sort((a, b) => a - b);
    for (let index = 0; index + 1 < crossings.length; index += 2) {
      const from = Math.max(0, Math.ceil(((crossings[index] as number) - corner.x) / cellMm - 0.5));
      const to = Math.floor(((crossings[index + 1] as number) - corner.x) / cellMm - 0.5) + 1;
      if (to > from) runs.push(from, Math.min(columns, to));
    }
    rowStarts[row + 1] = runs.length / 2;
  }
  return { columns, rows, rowStarts, runs: Int32Array.from(runs), corner };
}

/** Takes the cells that a box touches; `corner` is where the grid's first cell begins, mm. */
export function fillBox(grid: BitGrid, box: BoxMm, corner: PointMm, cellMm: number): void {
  const first = (value: number, at: number) => Math.floor((value - at) / cellMm + 1e-9);
  const end = (value: number, at: number) => Math.ceil((value - at) / cellMm - 1e-9);
  for (let row = first(box.minY, corner.y); row < end(box.maxY, corner.y); row++) {
    grid.takeRun(row, first(box.minX, corner.x), end(box.maxX, corner.x));
  }
}

function crossingsAt(ring: readonly PointMm[], y: number): readonly number[] {
  const found: number[] = [];
  for (let index = 0, last = ring.length - 1; index < ring.length; last = index++) {
    const a = ring[index] as PointMm;
    const b = ring[last] as PointMm;
    if (a.y > y !== b.y > y) found.push(((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x);
  }
  return found;
}
