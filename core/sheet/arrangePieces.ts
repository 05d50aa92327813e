import { seededRandom, type Random } from '#core/random/seededRandom.ts';
import { areaOfRings } from '#core/geometry/clip.ts';
import { areaOfBox, growBox, type BoxMm } from '#core/geometry/box.ts';
import { carrierRoom } from '#core/sheet/carrier/carrier.ts';
import { fillCarriers, type CarrierOrder, type LayOnCarriers } from '#core/sheet/carrier/fillCarriers.ts';
import type { Arrangement, Layout, Placement, Turns } from '#core/sheet/layout.ts';
import type { CoveredPiece } from '#core/sheet/nest/coverPieces.ts';
import { isBetter, nestPieces, type NestResult } from '#core/sheet/nest/nestPieces.ts';
import type { RowRoom } from '#core/sheet/rows/fillRows.ts';
import { polishLast } from '#core/sheet/nest/polishLast.ts';
import { packBoxes } from '#core/sheet/nest/packBoxes.ts';
import {
  fillBin,
  rowPieces,
  type BinPlace,
  type RowPiece,
  type RowsResult,
} from '#core/sheet/rows/rowPieces.ts';
import { middleOfPage, usableBox, type Sheet } from '#core/sheet/sheetSize.ts';

/** A piece of one of a job's drawings. */
export interface ArrangedPiece extends CoveredPiece {
  /** The number of its drawing; `null` for the carrier. */
  readonly drawing: number | null;
}

/** What is to be laid out, and how. */
export interface ArrangeOrder {
  readonly pieces: readonly ArrangedPiece[];
  readonly layout: Omit<Layout, 'placements'>;
  readonly sheet: Sheet;
  /** What must stay free: marks with their keep-outs, holes, the test-cut corner. */
  readonly taken: readonly BoxMm[];
}

/** No more sheets than this are begun. */
const MOST_SHEETS = 200;
/** Pieces whose boxes differ by no more than this are equal, mm. */
const SAME_MM = 0.2;
/** So few tries are made while somebody waits for an answer: then the last sheet is not packed once more. */
const FEW_TRIES = 4;
const POLISH_TRIES = 40;
const POLISH_SEED = 7;
/** A carrier is small: a few tries find its best. */
const CARRIER_TRIES = 6;

/**
 * Rows for equal pieces and on carriers, else close together.
 *
 * @example usualArrangement([], null) // 'rows'
 */
export function usualArrangement(
  pieces: readonly ArrangedPiece[],
  carrier: Layout['carrier'] | null,
): Arrangement {
  const [first, ...others] = pieces.filter(({ drawing }) => drawing !== null).map(({ box }) => sizeOf(box));
  const areEqual = others.every(
    ([width, height]) =>
      Math.abs(width - (first?.[0] ?? 0)) <= SAME_MM && Math.abs(height - (first?.[1] ?? 0)) <= SAME_MM,
  );
  return carrier || areEqual ? 'rows' : 'packed';
}

/**
 * How many copies of a piece are wanted; infinite where they fill a sheet.
 *
 * @example wantedCopies({ index: 0, drawing: 0 }, { copies: 12, quantities: {} }) // 12
 */
export function wantedCopies(
  { index, drawing }: Pick<ArrangedPiece, 'index' | 'drawing'>,
  { copies, quantities, byDrawing }: Pick<Layout, 'copies' | 'quantities' | 'byDrawing'>,
): number {
  const own = quantities[index] ?? byDrawing?.[drawing ?? '']?.copies;
  return own ?? (copies === 0 ? Infinity : copies);
}

/**
 * Lays pieces out as a job wants them: in rows or close together, on the sheet or on carriers; each result is better
 * than the last.
 *
 * @param tries how many orders of packing to try
 * @param isOver asked before every try but the first
 * @example arrangePieces({ pieces: [], layout, sheet, taken: [] }, () => 0.5, 1).next().value?.sheets // 0
 */
export function* arrangePieces(
  order: ArrangeOrder,
  random: Random,
  tries: number,
  isOver: () => boolean = () => false,
): Generator<NestResult> {
  const pageOf = ({ drawing }: ArrangedPiece) => order.layout.byDrawing?.[drawing ?? '']?.page;
  const middle = { ...middleOfPage(order.sheet), turnDeg: 0 };
  const pages = order.pieces.flatMap((piece): readonly Placement[] => {
    const sheet = pageOf(piece);
    return sheet === undefined ? [] : [{ piece: piece.index, sheet, ...middle }];
  });
  const pieces = order.pieces.filter((piece) => pageOf(piece) === undefined);
  for (const result of arrangeLoose({ ...order, pieces }, random, tries, isOver)) {
    yield pages.length === 0 ? result : { ...result, placements: [...pages, ...result.placements] };
  }
}

/** All that does not lie still. */
function* arrangeLoose(
  order: ArrangeOrder,
  random: Random,
  tries: number,
  isOver: () => boolean,
): Generator<NestResult> {
  const { pieces, layout, sheet, taken } = order;
  const own = pieces.filter(({ drawing }) => drawing !== null);
  const arrangement = layout.arrangement ?? usualArrangement(pieces, layout.carrier);
  if (layout.carrier) return yield onCarriers(order, arrangement, random);
  if (arrangement === 'rows') return yield inRows(order, own);
  const turnsOf: Record<string, Turns> = {};
  const quantities: Record<string, number> = {};
  for (const piece of own) {
    turnsOf[piece.index] = turnsFor(piece, layout);
    const wanted = wantedCopies(piece, layout);
    if (wanted !== Infinity) quantities[piece.index] = wanted;
  }
  const { copies, turns, spacingMm } = layout;
  // Boxes are where every packing begins: cells are taken whole, and could cost a row that just fits.
  const rows = inRows(order, own);
  yield rows;
  const boxes = inBoxes(order, own, rows);
  if (isBetter(boxes, rows)) yield boxes;
  let best = isBetter(boxes, rows) ? boxes : rows;
  // Of its own, so that the tries do not depend on how often something was polished.
  const aside = seededRandom(POLISH_SEED);
  const packing = { pieces: own, copies, quantities, turns, turnsOf, spacingMm, sheet, taken };
  for (const result of nestPieces(packing, random, tries, isOver)) {
    const polished = tries > FEW_TRIES ? polishLast(packing, result, aside, POLISH_TRIES, isOver) : result;
    if (!isBetter(polished, best)) continue;
    best = polished;
    yield best;
  }
}

function turnsFor({ drawing }: ArrangedPiece, { turns, byDrawing }: ArrangeOrder['layout']): Turns {
  return byDrawing?.[drawing ?? '']?.turns ?? turns;
}

function rowPiecesOf(pieces: readonly ArrangedPiece[], layout: ArrangeOrder['layout']): readonly RowPiece[] {
  return pieces.map((piece) => ({
    index: piece.index,
    box: piece.box,
    count: wantedCopies(piece, layout),
    turns: turnsFor(piece, layout),
  }));
}

/** A sheet within its margins; what must stay free is kept clear by half a spacing, as packing keeps it. */
function roomOf({ sheet, taken, layout: { spacingMm } }: ArrangeOrder): RowRoom {
  return {
    box: usableBox(sheet),
    taken: taken.map((one) => growBox(one, spacingMm / 2)),
    spacingMm,
  };
}

function inRows(order: ArrangeOrder, own: readonly ArrangedPiece[]): NestResult {
  const kinds = rowPiecesOf(own, order.layout);
  const room = roomOf(order);
  return placeBoxes(
    order,
    isFilling(kinds) ? fillBin(kinds, room) : rowPieces(kinds, () => room, MOST_SHEETS),
  );
}

/** More boxes are not packed by their free rectangles while somebody waits: rows and shapes have them. */
const MOST_BOXES = 600;

/** Boxes packed anywhere; as in rows where that many are wanted that it would take long. */
function inBoxes(order: ArrangeOrder, own: readonly ArrangedPiece[], rows: NestResult): NestResult {
  const kinds = rowPiecesOf(own, order.layout);
  const counted = new Map(own.map(({ index }) => [index, 0]));
  for (const { piece } of rows.placements) counted.set(piece, (counted.get(piece) ?? 0) + 1);
  const wanted = kinds.reduce((sum, { count }) => sum + (count === Infinity ? 0 : count), 0);
  if (Math.max(wanted, rows.placements.length) > MOST_BOXES) return rows;
  const room = roomOf(order);
  if (!isFilling(kinds)) return placeBoxes(order, packBoxes(kinds, room, MOST_SHEETS));
  const open = kinds.filter(({ count }) => count === Infinity).map(({ index }) => counted.get(index) ?? 0);
  // One that rows hold may not fit by the rules: one less surely does.
  return placeBoxes(order, fillBin(kinds, room, packBoxes, Math.max(0, Math.min(...open) - 1)));
}

function isFilling(kinds: readonly RowPiece[]): boolean {
  return kinds.some(({ count }) => count === Infinity);
}

function placeBoxes(order: ArrangeOrder, result: RowsResult): NestResult {
  const placements = result.places.map(({ bin, ...place }): Placement => ({ ...place, sheet: bin }));
  return describe(order, { placements, sheets: result.bins, unplaced: result.unplaced }, result.endMm);
}

function onCarriers(order: ArrangeOrder, arrangement: Arrangement, random: Random): NestResult {
  const { pieces, layout, sheet } = order;
  const card = pieces.find(({ drawing }) => drawing === null);
  const { carrier, spacingMm } = layout;
  const nothing = { placements: [], sheets: 0, unplaced: [] };
  if (!card || !carrier) return describe(order, nothing, 0);
  const own = pieces.filter(({ drawing }) => drawing !== null);
  const kinds = rowPiecesOf(own, layout);
  const onSheets: CarrierOrder = {
    pieces: kinds,
    carrier,
    carrierPiece: card.index,
    spacingMm,
    sheetRoom: roomOf(order),
    isFilling: isFilling(kinds),
  };
  const packOn: LayOnCarriers = (wanted, most) => packCarriers(own, wanted, { order, random, most });
  const filled = fillCarriers(onSheets, arrangement === 'packed' && !onSheets.isFilling ? packOn : undefined);
  return describe(order, filled, sheet.heightMm);
}

interface Packing {
  readonly order: ArrangeOrder;
  readonly random: Random;
  readonly most: number;
}

/** Pieces packed on carriers as on small sheets. */
function packCarriers(
  own: readonly ArrangedPiece[],
  wanted: readonly RowPiece[],
  { order: { layout }, random, most }: Packing,
): readonly BinPlace[] {
  const { carrier, spacingMm, turns } = layout;
  if (!carrier) return [];
  const { minX, minY, maxX, maxY } = carrierRoom(carrier);
  const quantities = Object.fromEntries(wanted.map(({ index, count }) => [index, count]));
  const turnsOf = Object.fromEntries(wanted.map((piece) => [piece.index, piece.turns]));
  const sheet = { name: 'carrier', widthMm: maxX - minX, heightMm: maxY - minY, marginMm: 0 };
  const packing = { pieces: own, copies: 1, quantities, turns, turnsOf, spacingMm, sheet, taken: [] };
  let best: NestResult | null = null;
  for (const result of nestPieces(packing, random, CARRIER_TRIES)) best = result;
  return (best?.placements ?? [])
    .filter((placement) => placement.sheet < most)
    .map(({ sheet: bin, xMm, yMm, ...place }) => ({ ...place, bin, xMm: xMm + minX, yMm: yMm + minY }));
}

function describe(
  { pieces, sheet }: ArrangeOrder,
  { placements, sheets, unplaced }: Pick<NestResult, 'placements' | 'sheets' | 'unplaced'>,
  endMm: number,
): NestResult {
  const areas = new Map(pieces.map(({ index, silhouette }) => [index, areaOfRings(silhouette)]));
  const covered = placements.reduce((sum, { piece }) => sum + (areas.get(piece) ?? 0), 0);
  const use = sheets === 0 ? 0 : Math.min(1, covered / (areaOfBox(usableBox(sheet)) * sheets));
  return { placements, sheets, unplaced, use, lastShare: endMm / sheet.heightMm };
}

function sizeOf({ minX, minY, maxX, maxY }: BoxMm): readonly [number, number] {
  return [maxX - minX, maxY - minY];
}
