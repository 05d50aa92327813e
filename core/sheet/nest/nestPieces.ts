import { itemAt } from '#core/collections/itemAt.ts';
import { ROUNDING } from '#core/units/rounding.ts';
import { mapPoint } from '#core/geometry/affine.ts';
import { areaOfRings, offsetRings, type Rings } from '#core/geometry/clip.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import type { CoveredPiece } from '#core/sheet/nest/coverPieces.ts';
import type { Random } from '#core/random/seededRandom.ts';
import { chooseTry, FIRST_TRIES, nearTry, type Try } from '#core/sheet/nest/nestTries.ts';
import { CellGrid, fillBox, maskRings, type CellSize } from '#core/sheet/nest/cellGrid.ts';
import { SheetFiller, type Found, type Side, type Turned } from '#core/sheet/nest/sheetFiller.ts';
import { affineOf, anglesOf, type Placement, type Turns } from '#core/sheet/layout.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';

/** What is to be laid out. */
export interface NestOrder {
  readonly pieces: readonly CoveredPiece[];
  /** Copies of every piece; 0 fills one sheet with equal numbers of each. */
  readonly copies: number;
  /** Copies of single pieces by index, instead of `copies`; a sheet is filled by those that are left to it. */
  readonly quantities?: Readonly<Record<string, number>>;
  readonly turns: Turns;
  /** Turns of single pieces by index, instead of `turns`. */
  readonly turnsOf?: Readonly<Record<string, Turns>>;
  readonly spacingMm: number;
  readonly sheet: Sheet;
  /** What must stay free: marks with their keep-outs, holes, the test-cut corner. */
  readonly taken: readonly BoxMm[];
}

/** One finished try. */
export interface NestResult {
  readonly placements: readonly Placement[];
  readonly sheets: number;
  /** Pieces that fit on no empty sheet. */
  readonly unplaced: readonly number[];
  /** Share of the usable area of the sheets used that pieces cover. */
  readonly use: number;
  /** Share of the last sheet, from the edge it was filled from, that is used up to the furthest piece. */
  readonly lastShare: number;
}

/** Finer cells fit closer and cost more: about this many on a sheet, each a quarter as wide as high. */
const CELLS = 3_000_000;
/** Few shapes are tried quickly: they are laid on cells half as large. */
const FEW_SHAPES = 40;
const CELL_SHAPE = 0.25;
const FINEST_MM = 0.1;
/** Round offsets may fall short by this, mm. */
const ARC_MM = 0.005;
const MOST_SHEETS = 200;
/** As many as a grid counts. */
const MOST_COLUMNS = 32_000;

/**
 * Lays real shapes out, try after try, each better than the last yielded: bottom-left filling on a grid of cells, with
 * pieces taken large to small first and in other orders after. Shapes may lie in each other's bays and holes. No two
 * come nearer than the spacing and none leaves the usable area: cells are taken whole as soon as a shape touches them.
 *
 * @param tries how many orders to try; the caller may stop earlier
 * @param isOver asked before every try but the first
 * @example nestPieces({ pieces: [], copies: 1, turns: 'none', spacingMm: 2, sheet, taken: [] }, () => 0.5, 1).next().value.sheets // 0
 */
export function* nestPieces(
  order: NestOrder,
  random: Random,
  tries: number,
  isOver: () => boolean = () => false,
): Generator<NestResult> {
  const nest = new Nest(order);
  let best: NestResult | null = null;
  /** The try that others are made from: what leaves least over is nearest to saving a sheet. */
  let lead: { readonly ran: Ran; readonly how: Try } | null = null;
  for (let round = 0; round < tries && (round === 0 || !isOver()); round++) {
    const isNear = round >= FIRST_TRIES && round % 4 > 0;
    const how: Try =
      isNear && lead
        ? nearTry(lead.how, lead.ran.leftOver, random)
        : chooseTry(round, order.pieces.length, random);
    const ran = nest.run(how);
    const { result } = ran;
    if (!lead || isNearer(ran, lead.ran)) lead = { ran, how };
    if (best && !isBetter(result, best)) continue;
    best = result;
    yield result;
  }
}

/**
 * More pieces laid, or fewer sheets, or less of the last.
 *
 * @example isBetter({ placements: [], sheets: 1, unplaced: [], use: 0, lastShare: 0.4 }, { placements: [], sheets: 1, unplaced: [], use: 0, lastShare: 0.5 }) // true
 */
export function isBetter(a: NestResult, b: NestResult): boolean {
  if (a.placements.length !== b.placements.length) return a.placements.length > b.placements.length;
  if (a.sheets !== b.sheets) return a.sheets < b.sheets;
  return a.lastShare < b.lastShare - ROUNDING;
}

/** What came of a try, and what is needed to make another near it. */
interface Ran {
  readonly result: NestResult;
  /** Pieces on the last sheet, by their place in the order, and their area, mm². */
  readonly leftOver: ReadonlySet<number>;
  readonly leftOverMm2: number;
}

function isNearer(a: Ran, b: Ran): boolean {
  if (a.result.placements.length !== b.result.placements.length) return isBetter(a.result, b.result);
  if (a.result.sheets !== b.result.sheets) return a.result.sheets < b.result.sheets;
  return a.leftOverMm2 < b.leftOverMm2;
}

/** Everything with x and y exchanged, so that columns are filled as rows are. */
function exchange(rings: Rings): Rings {
  return rings.map((ring) => ring.map(({ x, y }) => ({ x: y, y: x })));
}

function exchangeBox({ minX, minY, maxX, maxY }: BoxMm): BoxMm {
  return { minX: minY, minY: minX, maxX: maxY, maxY: maxX };
}

class Nest {
  private readonly cell: CellSize;
  private readonly usable: BoxMm;
  private readonly sides: readonly [Side, Side];
  private readonly areas: readonly number[];
  private readonly fitting: readonly number[];

  constructor(private readonly order: NestOrder) {
    const { sheet, pieces, spacingMm } = order;
    // Pieces keep half the spacing to each side, so that the edges may be half a spacing nearer.
    const reach = spacingMm / 2;
    this.usable = {
      minX: sheet.marginMm - reach,
      minY: sheet.marginMm - reach,
      maxX: sheet.widthMm - sheet.marginMm + reach,
      maxY: sheet.heightMm - sheet.marginMm + reach,
    };
    const [width, height] = [this.usable.maxX - this.usable.minX, this.usable.maxY - this.usable.minY];
    const shapes = pieces.reduce(
      (sum, { index }) => sum + anglesOf(order.turnsOf?.[index] ?? order.turns).length,
      0,
    );
    const cells = shapes <= FEW_SHAPES ? 2 * CELLS : CELLS;
    const heightMm = Math.max(FINEST_MM, Math.sqrt((width * height) / cells / CELL_SHAPE));
    this.cell = {
      heightMm,
      widthMm: Math.max(heightMm * CELL_SHAPE, Math.max(width, height) / MOST_COLUMNS),
    };
    this.areas = pieces.map(({ silhouette }) => areaOfRings(silhouette));
    this.sides = [this.makeSide(false), this.makeSide(true)];
    this.fitting = [...pieces.keys()].filter((index) => this.fitsAlone(index));
  }

  run(how: Try): Ran {
    const { pieces, copies, sheet } = this.order;
    const { ranks } = how;
    const rankOf = (index: number) =>
      Array.isArray(ranks) ? itemAt(ranks, index) : -itemAt(this.areas, index);
    const ranked = this.fitting
      .filter((index) => this.wantedOf(index) > 0)
      .sort((a, b) => rankOf(a) - rankOf(b));
    const left = new Map(ranked.map((index) => [index, this.wantedOf(index)]));
    const placed: (Found & { readonly sheet: number })[] = [];
    let sheets = 0;
    let lastShare = 0;
    while (left.size > 0 && sheets < (copies === 0 ? 1 : MOST_SHEETS)) {
      const filler = new SheetFiller(this.sides[how.isByColumn ? 1 : 0], how, this.cell, this.areas);
      const place = (candidates: readonly number[]) => {
        const found = filler.find(candidates);
        if (found) placed.push({ ...found, sheet: sheets });
        return found?.index ?? null;
      };
      const endless = ranked.filter((index) => left.get(index) === Infinity);
      for (const index of endless) left.delete(index);
      fillWanted(left, place, ranks === null);
      if (copies === 0) fillEvenly(endless, place);
      lastShare = filler.usedShare;
      sheets++;
      if (copies === 0) left.clear();
    }
    const usableArea = (sheet.widthMm - 2 * sheet.marginMm) * (sheet.heightMm - 2 * sheet.marginMm);
    const covered = placed.reduce((sum, { index }) => sum + itemAt(this.areas, index), 0);
    const last = placed.filter(({ sheet: at }) => at === sheets - 1);
    const result: NestResult = {
      placements: placed.map(({ turned, sheet: at, xMm, yMm }) =>
        how.isByColumn
          ? { piece: turned.piece, sheet: at, xMm: yMm, yMm: xMm, turnDeg: turned.turnDeg }
          : { piece: turned.piece, sheet: at, xMm, yMm, turnDeg: turned.turnDeg },
      ),
      sheets,
      unplaced: [...pieces.keys()]
        .filter((at) => !this.fitting.includes(at))
        .map((at) => pieces[at]?.index ?? at),
      use: sheets === 0 ? 0 : covered / (usableArea * sheets),
      lastShare,
    };
    return {
      result,
      leftOver: new Set(last.map(({ index }) => index)),
      leftOverMm2: last.reduce((sum, { index }) => sum + itemAt(this.areas, index), 0),
    };
  }

  private wantedOf(index: number): number {
    const { copies, quantities, pieces } = this.order;
    return quantities?.[pieces[index]?.index ?? index] ?? (copies === 0 ? Infinity : copies);
  }

  private makeSide(isExchanged: boolean): Side {
    const usable = isExchanged ? exchangeBox(this.usable) : this.usable;
    const corner = { x: usable.minX, y: usable.minY };
    const { cell } = this;
    const cells = (sizeMm: number, cellMm: number) => Math.max(1, Math.floor(sizeMm / cellMm));
    const empty = new CellGrid(
      cells(usable.maxX - usable.minX, cell.widthMm),
      cells(usable.maxY - usable.minY, cell.heightMm),
    );
    for (const box of this.order.taken) {
      fillBox(empty, isExchanged ? exchangeBox(box) : box, corner, cell);
    }
    const room = this.order.spacingMm / 2 + ARC_MM;
    const turned = this.order.pieces.map(({ index, box, silhouette }) =>
      anglesOf(this.order.turnsOf?.[index] ?? this.order.turns).map((turnDeg): Turned => {
        const affine = affineOf(box, { xMm: 0, yMm: 0, turnDeg });
        const rings: Rings = silhouette.map((ring) => ring.map((point) => mapPoint(affine, point)));
        const grown = offsetRings(rings, room);
        return { piece: index, turnDeg, mask: maskRings(isExchanged ? exchange(grown) : grown, cell) };
      }),
    );
    return { empty, corner, turned };
  }

  private fitsAlone(index: number): boolean {
    const [{ empty, turned }] = this.sides;
    return itemAt(turned, index).some(({ mask }) => mask.columns <= empty.columns && mask.rows <= empty.rows);
  }
}

/** Places one of several candidates and tells which. */
type PutOne = (candidates: readonly number[]) => number | null;

/** One of each in turn, until not even one finds a place. */
function fillEvenly(ranked: readonly number[], place: PutOne): void {
  let going = ranked;
  while (going.length > 0) going = going.filter((index) => place([index]) !== null);
}

/** All copies of the first, then of the next, or always what fits best; what is done leaves the map. */
function fillWanted(left: Map<number, number>, place: PutOne, isBestFit: boolean): void {
  const take = (candidates: readonly number[]): boolean => {
    const index = place(candidates);
    if (index === null) return false;
    const count = left.get(index) as number;
    if (count > 1) left.set(index, count - 1);
    else left.delete(index);
    return true;
  };
  if (isBestFit) {
    while (left.size > 0 && take([...left.keys()]));
    return;
  }
  for (const index of [...left.keys()]) while (left.has(index) && take([index]));
}
