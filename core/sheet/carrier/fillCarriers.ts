import { groupBy } from '#core/collections/groupBy.ts';
import { mapPoint } from '#core/geometry/affine.ts';
import { boundPoints, middleOf, type BoxMm } from '#core/geometry/box.ts';
import { carrierRoom, type Carrier } from '#core/sheet/carrier/carrier.ts';
import { affineOf, turnBox, type Placement } from '#core/sheet/layout.ts';
import { lineUp } from '#core/sheet/rows/lineUp.ts';
import { fillBin, rowPieces, type BinPlace, type RowPiece } from '#core/sheet/rows/rowPieces.ts';
import type { RowRoom } from '#core/sheet/rows/fillRows.ts';

/** Lays pieces out on one carrier after another; another way than rows can be given. */
export type LayOnCarriers = (pieces: readonly RowPiece[], mostCarriers: number) => readonly BinPlace[];

/** What is laid out on carriers, and where they go. */
export interface CarrierOrder {
  readonly pieces: readonly RowPiece[];
  readonly carrier: Carrier;
  /** What the carrier itself is called in the layout. */
  readonly carrierPiece: number;
  readonly spacingMm: number;
  readonly sheetRoom: RowRoom;
  /** The carriers of one sheet are filled, instead of what is wanted being laid out. */
  readonly isFilling: boolean;
}

/** Carriers on their sheets, with what lies on them. */
export interface FilledCarriers {
  readonly placements: readonly Placement[];
  readonly sheets: number;
  readonly carriers: number;
  readonly unplaced: readonly number[];
}

/** No more carriers than this are begun. */
const MOST_CARRIERS = 2000;

/**
 * Shares pieces among carriers, lays them out on each, in the middle of its room, and the carriers in rows on sheets.
 * What finds no room on the carriers that were asked for goes to further ones.
 *
 * @param layOn how pieces are laid out on a carrier; in rows when it is left out
 * @example fillCarriers({ pieces: [], carrier: { widthMm: 105, heightMm: 148, radiusMm: 4, marginMm: 5, hole: null, role: 'through', count: 1 }, carrierPiece: 0, spacingMm: 2, sheetRoom: { box: { minX: 0, minY: 0, maxX: 200, maxY: 200 }, taken: [], spacingMm: 2 }, isFilling: false }).carriers // 0
 */
export function fillCarriers(order: CarrierOrder, layOn: LayOnCarriers = rowsOn(order)): FilledCarriers {
  const { pieces, carrier, carrierPiece, sheetRoom, isFilling } = order;
  const card: BoxMm = { minX: 0, minY: 0, maxX: carrier.widthMm, maxY: carrier.heightMm };
  const cards = (count: number): RowPiece => ({ index: carrierPiece, box: card, count, turns: 'quarter' });
  const onOneSheet = isFilling ? fillBin([cards(Infinity)], sheetRoom).places.length : 0;
  const filled = isFilling
    ? fillEach(order, carrier.count === 0 ? onOneSheet : Math.min(carrier.count, onOneSheet))
    : shareOut(pieces, carrier.count, layOn);
  const centred = centreOn(filled.places, pieces, carrierRoom(carrier));
  const laid = rowPieces([cards(filled.carriers)], () => sheetRoom, MOST_CARRIERS);
  const byCarrier = groupBy(centred, ({ bin }) => bin);
  const places = lineUp(laid.places, card, sheetRoom);
  const placements = places.flatMap(({ bin, xMm, yMm, turnDeg }, number): readonly Placement[] => {
    const toSheet = affineOf(card, { xMm, yMm, turnDeg });
    const own = (byCarrier.get(number) ?? []).map((place): Placement => {
      const { x, y } = mapPoint(toSheet, { x: place.xMm, y: place.yMm });
      return { piece: place.piece, sheet: bin, xMm: x, yMm: y, turnDeg: (place.turnDeg + turnDeg) % 360 };
    });
    return [{ piece: carrierPiece, sheet: bin, xMm, yMm, turnDeg }, ...own];
  });
  return {
    placements,
    sheets: laid.bins,
    carriers: filled.carriers,
    unplaced: [...filled.unplaced, ...laid.unplaced],
  };
}

interface OnCarriers {
  readonly places: readonly BinPlace[];
  readonly carriers: number;
  readonly unplaced: readonly number[];
}

function roomOn({ carrier, spacingMm }: CarrierOrder): RowRoom {
  return { box: carrierRoom(carrier), taken: [], spacingMm };
}

function rowsOn(order: CarrierOrder): LayOnCarriers {
  return (pieces, most) => rowPieces(pieces, () => roomOn(order), most).places;
}

/** One filled carrier, as often as wanted. */
function fillEach(order: CarrierOrder, count: number): OnCarriers {
  const { places, unplaced } = fillBin(order.pieces, roomOn(order));
  const all = Array.from({ length: count }, (_, bin) => places.map((place) => ({ ...place, bin })));
  return { places: all.flat(), carriers: places.length === 0 ? 0 : count, unplaced };
}

/** Every carrier gets its share; what does not fit goes to further ones. */
function shareOut(pieces: readonly RowPiece[], count: number, layOn: LayOnCarriers): OnCarriers {
  const places: BinPlace[] = [];
  const left = new Map(pieces.map((piece) => [piece.index, piece.count]));
  const put = (wanted: readonly RowPiece[], first: number, most: number): number => {
    const laid = layOn(wanted, most);
    for (const place of laid) {
      places.push({ ...place, bin: place.bin + first });
      left.set(place.piece, (left.get(place.piece) ?? 0) - 1);
    }
    return laid.reduce((bins, { bin }) => Math.max(bins, bin + 1), 0);
  };
  for (let number = 0; number < count; number++) {
    const share = pieces.map((piece) => ({
      ...piece,
      count: Math.floor(piece.count / count) + (number < piece.count % count ? 1 : 0),
    }));
    put(share, number, 1);
  }
  const rest = pieces.map((piece) => ({ ...piece, count: left.get(piece.index) ?? 0 }));
  const further = put(rest, count, MOST_CARRIERS);
  const unplaced = pieces.filter(({ index }) => (left.get(index) ?? 0) > 0).map(({ index }) => index);
  return { places, carriers: places.length === 0 ? 0 : count + further, unplaced };
}

/** What lies on each carrier, moved to the middle of its room as one block. */
function centreOn(
  places: readonly BinPlace[],
  pieces: readonly RowPiece[],
  room: BoxMm,
): readonly BinPlace[] {
  const boxes = new Map(pieces.map(({ index, box }) => [index, box]));
  return [...groupBy(places, ({ bin }) => bin).values()].flatMap((own) => {
    const corners = own.flatMap((place) => {
      const box = boxes.get(place.piece);
      if (!box) return [];
      const { minX, minY, maxX, maxY } = turnBox(box, affineOf(box, place));
      return [
        { x: minX, y: minY },
        { x: maxX, y: maxY },
      ];
    });
    const block = middleOf(boundPoints(corners));
    const { x, y } = middleOf(room);
    return own.map((place) => ({
      ...place,
      xMm: place.xMm + x - block.x,
      yMm: place.yMm + y - block.y,
    }));
  });
}
