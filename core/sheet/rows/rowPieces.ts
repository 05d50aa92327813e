import { itemAt } from '#core/collections/itemAt.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import { fillRows, type FilledRows, type RowKind, type RowRoom } from '#core/sheet/rows/fillRows.ts';
import { anglesOf, type Turns } from '#core/sheet/layout.ts';

/** A kind of piece that is to be laid in rows. */
export interface RowPiece {
  /** What it is called in the layout. */
  readonly index: number;
  readonly box: BoxMm;
  readonly count: number;
  readonly turns: Turns;
}

/** A piece at its place in a bin, a sheet or a carrier. */
export interface BinPlace {
  readonly piece: number;
  readonly bin: number;
  readonly xMm: number;
  readonly yMm: number;
  readonly turnDeg: number;
}

/** What rows come to. */
export interface RowsResult {
  readonly places: readonly BinPlace[];
  readonly bins: number;
  /** Pieces that fit in no bin, by what they are called. */
  readonly unplaced: readonly number[];
  /** The lower end of the last row in the last bin, mm. */
  readonly endMm: number;
}

const QUARTER_DEG = 90;

/** Turned by a quarter, pieces must save this share of the last bin: they are read as they were drawn. */
const TURN_SAVES = 0.15;

/**
 * Lays pieces out in rows, bin after bin. Each kind has rows of its own and lies as it was drawn, unless sharing rows or
 * turning it takes fewer bins, or places more; or turning saves much of the last.
 *
 * @param roomOf the room of a bin, from 0
 * @param mostBins no more are begun
 * @example rowPieces([], () => ({ box: { minX: 0, minY: 0, maxX: 9, maxY: 9 }, taken: [], spacingMm: 2 }), 9).bins // 0
 */
export function rowPieces(
  pieces: readonly RowPiece[],
  roomOf: (bin: number) => RowRoom,
  mostBins: number,
): RowsResult {
  const plain = layTurned(pieces, roomOf, mostBins);
  const shared = layTurned(pieces, (bin) => ({ ...roomOf(bin), sharesRows: true }), mostBins);
  return takesLess(shared, plain) ? shared : plain;
}

function layTurned(
  pieces: readonly RowPiece[],
  roomOf: (bin: number) => RowRoom,
  mostBins: number,
): RowsResult {
  let turned = pieces.map(() => false);
  let best = layRows(pieces, turned, roomOf, mostBins);
  for (const [index, { turns }] of pieces.entries()) {
    if (!anglesOf(turns).includes(QUARTER_DEG)) continue;
    const other = turned.map((isTurned, one) => (one === index ? !isTurned : isTurned));
    const result = layRows(pieces, other, roomOf, mostBins);
    const saves = result.endMm < (1 - TURN_SAVES) * best.endMm;
    if (takesLess(result, best) || (saves && !takesLess(best, result))) [best, turned] = [result, other];
  }
  return best;
}

/** Lays finite numbers of pieces out in bins that are all alike. */
export type LayPieces = (pieces: readonly RowPiece[], room: RowRoom, mostBins: number) => RowsResult;

const inRows: LayPieces = (pieces, room, mostBins) => rowPieces(pieces, () => room, mostBins);

/**
 * As many of each kind as one bin takes, and then of single kinds what still fits.
 *
 * @param layPieces how; in rows where nothing is said
 * @param known of each kind whose number is open, as many as surely fit
 * @example fillBin([], { box: { minX: 0, minY: 0, maxX: 9, maxY: 9 }, taken: [], spacingMm: 2 }).bins // 0
 */
export function fillBin(
  pieces: readonly RowPiece[],
  room: RowRoom,
  layPieces: LayPieces = inRows,
  known = 0,
): RowsResult {
  const lay = (counts: readonly number[]) =>
    layPieces(
      pieces.map((piece, index) => ({ ...piece, count: itemAt(counts, index) })),
      room,
      1,
    );
  const holds = (counts: readonly number[]) => lay(counts).places.length === sum(counts);
  const free = pieces.map(({ count }) => (count === Infinity ? 1 : 0));
  const fixed = pieces.map(({ count }) => (count === Infinity ? 0 : count));
  const withEach = (each: number) => fixed.map((count, index) => count + each * itemAt(free, index));
  const each = sum(free) === 0 ? 0 : mostThat((count) => holds(withEach(count)), known);
  const counts = [...withEach(each)];
  for (const [index, isFree] of free.entries()) {
    if (isFree === 0) continue;
    const withMore = (count: number) => counts.map((own, at) => (at === index ? count : own));
    counts[index] = mostThat((count) => holds(withMore(count)), itemAt(counts, index));
  }
  return lay(counts);
}

/** The greatest count that fits, in steps that double and halve. @param known fits */
function mostThat(fits: (count: number) => boolean, known: number): number {
  let most = known;
  let step = 1;
  for (; fits(most + step); step *= 2) most += step;
  for (step /= 2; step >= 1; step /= 2) if (fits(most + step)) most += step;
  return most;
}

function sum(counts: readonly number[]): number {
  return counts.reduce((total, count) => total + count, 0);
}

/** More pieces laid, or as many in fewer bins. */
function takesLess(a: RowsResult, b: RowsResult): boolean {
  if (a.places.length !== b.places.length) return a.places.length > b.places.length;
  return a.bins < b.bins;
}

function layRows(
  pieces: readonly RowPiece[],
  turned: readonly boolean[],
  roomOf: (bin: number) => RowRoom,
  mostBins: number,
): RowsResult {
  const all = pieces.map((piece, index) => {
    const [width, height] = [piece.box.maxX - piece.box.minX, piece.box.maxY - piece.box.minY];
    const isTurned = itemAt(turned, index);
    return {
      piece,
      widthMm: isTurned ? height : width,
      heightMm: isTurned ? width : height,
      turnDeg: isTurned ? QUARTER_DEG : 0,
    };
  });
  const kinds = all
    .map((kind) => ({ ...kind, count: kind.piece.count }))
    .filter(({ count }) => count > 0)
    .sort((a, b) => b.heightMm - a.heightMm || a.piece.index - b.piece.index);
  const places: BinPlace[] = [];
  let left: readonly number[] = kinds.map(({ count }) => count);
  let bins = 0;
  let endMm = 0;
  while (left.some((count) => count > 0) && bins < mostBins) {
    const wanted = kinds.map((kind, index): RowKind => ({ ...kind, count: itemAt(left, index) }));
    const filled: FilledRows = fillRows(wanted, roomOf(bins));
    if (filled.places.length === 0) break;
    places.push(
      ...filled.places.map(({ kind, xMm, yMm }) => {
        const { piece, turnDeg } = itemAt(kinds, kind);
        return { piece: piece.index, bin: bins, xMm, yMm, turnDeg };
      }),
    );
    ({ left, endMm } = filled);
    bins++;
  }
  const unplaced = kinds.filter((_, index) => itemAt(left, index) > 0).map(({ piece }) => piece.index);
  return { places, bins, unplaced, endMm };
}
