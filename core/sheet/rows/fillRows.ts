import { itemAt } from '#core/collections/itemAt.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';

/** Pieces of one kind, as they are laid in rows. */
export interface RowKind {
  readonly widthMm: number;
  readonly heightMm: number;
  /** How many are wanted. */
  readonly count: number;
}

/** Where rows may lie. */
export interface RowRoom {
  readonly box: BoxMm;
  /** What must stay free within it. */
  readonly taken: readonly BoxMm[];
  readonly spacingMm: number;
  /** The end of a row is given to other kinds; each kind begins a row of its own where it is not. */
  readonly sharesRows?: boolean;
}

/** One piece in a row: which kind, and its middle. */
export interface RowPlace {
  readonly kind: number;
  readonly xMm: number;
  readonly yMm: number;
}

/** What lies in the rows of one sheet. */
export interface FilledRows {
  readonly places: readonly RowPlace[];
  /** How many of each kind found no room. */
  readonly left: readonly number[];
  /** The lower end of the last row, mm; the upper edge of the room where there is none. */
  readonly endMm: number;
}

/**
 * Lays pieces out in straight rows from the upper left: kind after kind, equal ones below each other, in the middle of
 * their row. Where rows are shared the end of one is given to later kinds that are no higher. Rows go around what must
 * stay free.
 *
 * @param kinds the highest first
 * @example fillRows([{ widthMm: 10, heightMm: 10, count: 3 }], { box: { minX: 0, minY: 0, maxX: 22, maxY: 22 }, taken: [], spacingMm: 2 }).left // [0]
 */
export function fillRows(kinds: readonly RowKind[], room: RowRoom): FilledRows {
  const { box, taken, spacingMm, sharesRows = false } = room;
  const left = kinds.map(({ count }) => count);
  const places: RowPlace[] = [];
  let top = box.minY;
  let endMm = box.minY;
  for (let first = 0; first < kinds.length;) {
    const { heightMm } = itemAt(kinds, first);
    const band: BoxMm = { minX: box.minX, maxX: box.maxX, minY: top, maxY: top + heightMm };
    if (itemAt(left, first) === 0 || band.maxY > box.maxY + LENGTH_MM) {
      // A lower kind may fit where this does not.
      first++;
      continue;
    }
    const inWay = taken.filter(
      ({ minY, maxY }) => maxY > band.minY + LENGTH_MM && minY < band.maxY - LENGTH_MM,
    );
    const row = freeStretches(band, inWay).flatMap((stretch) =>
      fillStretch(sharesRows ? kinds : kinds.slice(0, first + 1), {
        first,
        left,
        stretch,
        spacingMm,
        heightMm,
      }),
    );
    if (row.length > 0) {
      places.push(...row.map(({ kind, xMm }) => ({ kind, xMm, yMm: top + heightMm / 2 })));
      endMm = Math.max(endMm, band.maxY);
      top = band.maxY + spacingMm;
      continue;
    }
    const below = Math.min(...inWay.map(({ maxY }) => maxY));
    if (Number.isFinite(below)) top = below;
    else first++;
  }
  return { places, left, endMm };
}

interface Stretch {
  readonly from: number;
  readonly to: number;
}

function freeStretches({ minX, maxX }: BoxMm, inWay: readonly BoxMm[]): readonly Stretch[] {
  const sorted = [...inWay].sort((a, b) => a.minX - b.minX);
  const free: Stretch[] = [];
  let from = minX;
  for (const one of sorted) {
    if (one.minX > from) free.push({ from, to: one.minX });
    from = Math.max(from, one.maxX);
  }
  if (from < maxX) free.push({ from, to: maxX });
  return free;
}

interface RowOrder {
  readonly first: number;
  /** Counted down. */
  readonly left: number[];
  readonly stretch: Stretch;
  readonly spacingMm: number;
  readonly heightMm: number;
}

function fillStretch(
  kinds: readonly RowKind[],
  { first, left, stretch, spacingMm, heightMm }: RowOrder,
): readonly { readonly kind: number; readonly xMm: number }[] {
  const row: { kind: number; xMm: number }[] = [];
  let at = stretch.from;
  for (let kind = first; kind < kinds.length; kind++) {
    const { widthMm, heightMm: own } = itemAt(kinds, kind);
    if (own > heightMm + LENGTH_MM) continue;
    while (itemAt(left, kind) > 0 && at + widthMm <= stretch.to + LENGTH_MM) {
      row.push({ kind, xMm: at + widthMm / 2 });
      left[kind] = itemAt(left, kind) - 1;
      at += widthMm + spacingMm;
    }
  }
  return row;
}
