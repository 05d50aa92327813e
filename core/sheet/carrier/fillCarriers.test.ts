import { describe, expect, it } from 'vitest';
import { encloses, overlap } from '#core/geometry/box.ts';
import { drawCarrier, carrierRoom, type Carrier } from '#core/sheet/carrier/carrier.ts';
import { fillCarriers, type CarrierOrder } from '#core/sheet/carrier/fillCarriers.ts';
import { boundContour } from '#core/geometry/box.ts';
import { affineOf, turnBox, type Placement } from '#core/sheet/layout.ts';

const card: Carrier = {
  widthMm: 101.6,
  heightMm: 152.4,
  radiusMm: 4,
  marginMm: 5,
  hole: null,
  role: 'through',
  count: 2,
};
const CARD = 9;
const kinds = [0, 1, 2, 3].map((index) => ({
  index,
  box: { minX: 0, minY: 0, maxX: 20, maxY: 18 + index },
  count: 12,
  turns: 'none' as const,
}));
const letter = { box: { minX: 6, minY: 6, maxX: 209.9, maxY: 273.4 }, taken: [], spacingMm: 2 };
const order = (change: Partial<CarrierOrder> = {}): CarrierOrder => ({
  pieces: kinds,
  carrier: card,
  carrierPiece: CARD,
  spacingMm: 2,
  sheetRoom: letter,
  isFilling: false,
  ...change,
});
const boxOf = ({ piece, ...place }: Placement) => {
  const { widthMm, heightMm } = card;
  const box = piece === CARD ? { minX: 0, minY: 0, maxX: widthMm, maxY: heightMm } : kinds[piece]!.box;
  return turnBox(box, affineOf(box, place));
};

describe('carrier cards', () => {
  it('share twelve of each between two cards on one Letter sheet (C7)', () => {
    const { placements, sheets, carriers, unplaced } = fillCarriers(order());
    expect([sheets, carriers, unplaced]).toEqual([1, 2, []]);
    const cards = placements.filter(({ piece }) => piece === CARD).map(boxOf);
    expect(cards.length).toBe(2);
    for (const own of cards) {
      const on = placements.filter((one) => one.piece !== CARD && encloses(own, boxOf(one)));
      expect([0, 1, 2, 3].map((index) => on.filter(({ piece }) => piece === index).length)).toEqual([
        6, 6, 6, 6,
      ]);
      // 5 mm free on every side, and the block in the middle.
      const boxes = on.map(boxOf);
      const edges = [
        Math.min(...boxes.map(({ minX }) => minX)) - own.minX,
        own.maxX - Math.max(...boxes.map(({ maxX }) => maxX)),
        Math.min(...boxes.map(({ minY }) => minY)) - own.minY,
        own.maxY - Math.max(...boxes.map(({ maxY }) => maxY)),
      ];
      expect(Math.min(...edges)).toBeGreaterThanOrEqual(5 - 1e-6);
      expect(edges[0]).toBeCloseTo(edges[1]!, 6);
      expect(edges[2]).toBeCloseTo(edges[3]!, 6);
    }
    const stickers = placements.filter(({ piece }) => piece !== CARD).map(boxOf);
    stickers.forEach((box, at) => {
      const grown = {
        minX: box.minX - 1.9,
        minY: box.minY - 1.9,
        maxX: box.maxX + 1.9,
        maxY: box.maxY + 1.9,
      };
      expect(stickers.filter((other, index) => index !== at && overlap(other, grown))).toEqual([]);
    });
  });

  it('take further cards where the pieces do not fit on those asked for', () => {
    const large = kinds.map((kind) => ({ ...kind, box: { minX: 0, minY: 0, maxX: 42, maxY: 42 } }));
    const { carriers, placements, unplaced } = fillCarriers(order({ pieces: large }));
    expect(carriers).toBe(8);
    expect(placements.filter(({ piece }) => piece !== CARD).length).toBe(48);
    expect(unplaced).toEqual([]);
  });

  it('are filled, as many as a sheet takes', () => {
    const endless = kinds.slice(0, 1).map((kind) => ({ ...kind, count: Infinity }));
    const { carriers, placements } = fillCarriers(
      order({ pieces: endless, carrier: { ...card, count: 0 }, isFilling: true }),
    );
    expect(carriers).toBe(2);
    // 4 by 7 of 20 × 18 mm on 91.6 × 142.4 mm.
    expect(placements.filter(({ piece }) => piece === 0).length).toBe(2 * 4 * 7);
  });

  it('keep pieces off their hole, and say what is too large for any', () => {
    const holed = { ...card, hole: { diameterMm: 8, fromTopMm: 10 } };
    expect(carrierRoom(holed).minY).toBe(17);
    expect(drawCarrier(holed, 5).map(({ id }) => id)).toEqual([5, 6]);
    const { minX, maxX, minY, maxY } = boundContour(drawCarrier(holed, 0)[1]!.contour);
    expect([minX, maxX, minY, maxY].map((mm) => Number(mm.toFixed(3)))).toEqual([46.8, 54.8, 6, 14]);
    const huge = [{ ...kinds[0]!, box: { minX: 0, minY: 0, maxX: 120, maxY: 120 } }];
    expect(fillCarriers(order({ pieces: huge }))).toMatchObject({ carriers: 0, unplaced: [0] });
  });
});
