import { itemAt } from '#core/collections/itemAt.ts';
import { encloses, growBox, type BoxMm } from '#core/geometry/box.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import { anglesOf } from '#core/sheet/layout.ts';
import type { RowRoom } from '#core/sheet/rows/fillRows.ts';
import type { BinPlace, RowPiece, RowsResult } from '#core/sheet/rows/rowPieces.ts';

/** Which of the free rectangles a box goes to: the least wins, the second counts where the first is equal. */
type Rule = (free: BoxMm, width: number, height: number) => readonly [number, number];
/** Which box is taken first: the greatest. `null` takes what fits best. */
type Order = ((width: number, height: number) => number) | null;

const shorterLeft: Rule = (free, width, height) => {
  const [x, y] = [free.maxX - free.minX - width, free.maxY - free.minY - height];
  return [Math.min(x, y), Math.max(x, y)];
};
const leastArea: Rule = (free, width, height) => [
  (free.maxX - free.minX) * (free.maxY - free.minY) - width * height,
  shorterLeft(free, width, height)[0],
];
const lowest: Rule = (free, _width, height) => [free.minY + height, free.minX];
const leftmost: Rule = (free, width) => [free.minX + width, free.minY];
const RULES: readonly Rule[] = [lowest, shorterLeft, leastArea, leftmost];
const ORDERS: readonly Order[] = [
  (width, height) => width * height,
  (width, height) => Math.max(width, height),
  (width, height) => Math.min(width, height),
  (_width, height) => height,
  null,
];
/** So many boxes are tried in every order; of more only the first orders are. */
const MANY = 300;

/**
 * Packs boxes into bins by the maximal rectangles that stay free, by several rules and orders; the best is kept. What
 * must stay free is cut out of the bins before. Source: J. Jylänki, A Thousand Ways to Pack the Bin (2010), MAXRECTS.
 *
 * @param pieces with finite counts
 * @param mostBins no more are begun
 * @example packBoxes([], { box: { minX: 0, minY: 0, maxX: 9, maxY: 9 }, taken: [], spacingMm: 2 }, 9).bins // 0
 */
export function packBoxes(pieces: readonly RowPiece[], room: RowRoom, mostBins: number): RowsResult {
  const count = pieces.reduce((sum, piece) => sum + piece.count, 0);
  const orders = count > MANY ? ORDERS.slice(0, 2) : ORDERS;
  const tries = orders.flatMap((order) => RULES.map((rule) => pack(pieces, room, mostBins, rule, order)));
  return tries.reduce((best, one) => (isLess(one, best) ? one : best));
}

/** More boxes laid, or as many in fewer bins, or less of the last. */
function isLess(a: RowsResult, b: RowsResult): boolean {
  if (a.places.length !== b.places.length) return a.places.length > b.places.length;
  return a.bins === b.bins ? a.endMm < b.endMm - LENGTH_MM : a.bins < b.bins;
}

/** A box as it may lie, with its spacing to the right and below. */
interface Standing {
  readonly turnDeg: number;
  readonly width: number;
  readonly height: number;
}

interface Kind {
  readonly piece: RowPiece;
  readonly standing: readonly Standing[];
}

function kindOf(piece: RowPiece, spacingMm: number): Kind {
  const { minX, minY, maxX, maxY } = piece.box;
  const [width, height] = [maxX - minX + spacingMm, maxY - minY + spacingMm];
  const drawn = { turnDeg: 0, width, height };
  const isTurned = anglesOf(piece.turns).includes(90) && Math.abs(width - height) > LENGTH_MM;
  return { piece, standing: isTurned ? [drawn, { turnDeg: 90, width: height, height: width }] : [drawn] };
}

function pack(
  pieces: readonly RowPiece[],
  room: RowRoom,
  mostBins: number,
  rule: Rule,
  order: Order,
): RowsResult {
  const empty = emptyBin(room);
  const kinds = pieces.filter(({ count }) => count > 0).map((piece) => kindOf(piece, room.spacingMm));
  if (order) kinds.sort((a, b) => rankOf(b, order) - rankOf(a, order));
  const left = kinds.map(({ piece }) => piece.count);
  const places: BinPlace[] = [];
  let bins = 0;
  let endMm = 0;
  while (left.some((count) => count > 0) && bins < mostBins) {
    const before = places.length;
    endMm = fillOne(kinds, left, { empty, rule, isBestFit: order === null }, (kind, standing, at) => {
      const { width, height, turnDeg } = standing;
      const middle = {
        xMm: at.minX + (width - room.spacingMm) / 2,
        yMm: at.minY + (height - room.spacingMm) / 2,
      };
      places.push({ piece: kind.piece.index, bin: bins, turnDeg, ...middle });
      return at.minY + height - room.spacingMm;
    });
    if (places.length === before) break;
    bins++;
  }
  const unplaced = kinds.filter((_, at) => itemAt(left, at) > 0).map(({ piece }) => piece.index);
  return { places, bins, unplaced, endMm };
}

function rankOf({ standing }: Kind, order: Exclude<Order, null>): number {
  const { width, height } = itemAt(standing, 0);
  return order(width, height);
}

/** Boxes carry their spacing to the right and below: the bin is larger by it, and what must stay free begins later. */
function emptyBin({ box, taken, spacingMm }: RowRoom): readonly BoxMm[] {
  const bin = { ...box, maxX: box.maxX + spacingMm, maxY: box.maxY + spacingMm };
  return taken.reduce<readonly BoxMm[]>(
    (free, { minX, minY, maxX, maxY }) => {
      const [fromX, fromY] = [minX + spacingMm, minY + spacingMm];
      return cutOut(free, {
        minX: Math.min(fromX, maxX),
        maxX: Math.max(fromX, maxX),
        minY: Math.min(fromY, maxY),
        maxY: Math.max(fromY, maxY),
      });
    },
    [bin],
  );
}

interface Filling {
  readonly empty: readonly BoxMm[];
  readonly rule: Rule;
  /** What fits best is next; else all of the first kind, then of the next. */
  readonly isBestFit: boolean;
}

type PutDown = (kind: Kind, standing: Standing, free: BoxMm) => number;

/** Fills one bin. @returns where its lowest box ends, mm */
function fillOne(
  kinds: readonly Kind[],
  left: number[],
  { empty, rule, isBestFit }: Filling,
  putDown: PutDown,
): number {
  let free = empty;
  let endMm = 0;
  const put = (candidates: readonly number[]): boolean => {
    const found = findPlace(
      candidates.map((at) => [at, itemAt(kinds, at)] as const),
      free,
      rule,
    );
    if (!found) return false;
    const {
      at,
      standing,
      in: { minX, minY },
    } = found;
    left[at] = itemAt(left, at) - 1;
    const used = { minX, minY, maxX: minX + standing.width, maxY: minY + standing.height };
    endMm = Math.max(endMm, putDown(itemAt(kinds, at), standing, used));
    free = cutOut(free, used);
    return true;
  };
  const wanted = () => [...left.keys()].filter((at) => itemAt(left, at) > 0);
  if (isBestFit) while (put(wanted()));
  else for (const at of wanted()) while (itemAt(left, at) > 0 && put([at]));
  return endMm;
}

function findPlace(candidates: readonly (readonly [number, Kind])[], free: readonly BoxMm[], rule: Rule) {
  let best: { readonly at: number; readonly standing: Standing; readonly in: BoxMm } | null = null;
  let least: readonly [number, number] = [Infinity, Infinity];
  for (const [at, { standing }] of candidates) {
    for (const one of standing) {
      for (const box of free) {
        if (box.maxX - box.minX < one.width - LENGTH_MM || box.maxY - box.minY < one.height - LENGTH_MM)
          continue;
        const score = rule(box, one.width, one.height);
        if (score[0] > least[0] || (score[0] === least[0] && score[1] >= least[1])) continue;
        [best, least] = [{ at, standing: one, in: box }, score];
      }
    }
  }
  return best;
}

/** The largest rectangles that stay free around one that is taken. */
function cutOut(free: readonly BoxMm[], used: BoxMm): readonly BoxMm[] {
  const apart: BoxMm[] = [];
  const parts: BoxMm[] = [];
  for (const box of free) {
    const meets =
      used.minX < box.maxX - LENGTH_MM &&
      used.maxX > box.minX + LENGTH_MM &&
      used.minY < box.maxY - LENGTH_MM &&
      used.maxY > box.minY + LENGTH_MM;
    if (!meets) {
      apart.push(box);
      continue;
    }
    if (used.minX > box.minX + LENGTH_MM) parts.push({ ...box, maxX: used.minX });
    if (used.maxX < box.maxX - LENGTH_MM) parts.push({ ...box, minX: used.maxX });
    if (used.minY > box.minY + LENGTH_MM) parts.push({ ...box, maxY: used.minY });
    if (used.maxY < box.maxY - LENGTH_MM) parts.push({ ...box, minY: used.maxY });
  }
  const own = parts.filter(
    (one, index) =>
      !apart.some((other) => holds(other, one)) &&
      !parts.some((other, at) => at !== index && holds(other, one) && (!holds(one, other) || at < index)),
  );
  return [...apart, ...own];
}

function holds(outer: BoxMm, inner: BoxMm): boolean {
  return encloses(growBox(outer, LENGTH_MM), inner);
}
