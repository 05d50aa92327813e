import type { DrawnContour } from '#core/drawing/drawing.ts';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import { growBox, type BoxMm } from '#core/geometry/box.ts';
import { drawDisc, drawRoundedBox } from '#core/drawing/plainShapes.ts';

/** A hole to hang a card by. */
export interface CarrierHole {
  readonly diameterMm: number;
  /** From the upper edge to its middle; it lies in the middle of the width. */
  readonly fromTopMm: number;
}

/** A card that small pieces are sold on: they are kissed, and the card is cut out of the sheet. */
export interface Carrier {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly radiusMm: number;
  /** Kept free along its edges. */
  readonly marginMm: number;
  readonly hole: CarrierHole | null;
  /** How it is freed. */
  readonly role: CutRole;
  /** How many share the pieces; 0 for as many as they need. */
  readonly count: number;
}

/** Sizes that carriers begin with. Common practice, no source (T36). */
export const CARRIER_SIZES = [
  { name: '4 × 6 inch', widthMm: 101.6, heightMm: 152.4 },
  { name: 'A6', widthMm: 105, heightMm: 148 },
] as const;

/** Corners, margin and hole that people settle on. Common practice, no source (T36). */
export const PLAIN_CARRIER = { radiusMm: 4, marginMm: 5, hole: null } as const;
export const PLAIN_HOLE: CarrierHole = { diameterMm: 6, fromTopMm: 8 };
/** Kept free around a hole, mm: an edge nearer to it tears. Common practice, no source. */
const HOLE_RIM_MM = 3;

/** What the lines of a carrier are drawn with. */
const CARRIER_LAYER = 'carrier';
const CARRIER_COLOUR = '#1e2a32';

/**
 * The lines of a carrier with its upper left corner at 0, 0: its outline, and its hole.
 *
 * @param firstId id of the first line; shapes are numbered alike
 * @example drawCarrier({ widthMm: 105, heightMm: 148, radiusMm: 4, marginMm: 5, hole: null, role: 'through', count: 1 }, 0).length // 1
 */
export function drawCarrier(
  { widthMm, heightMm, radiusMm, hole }: Carrier,
  firstId: number,
): readonly DrawnContour[] {
  const outline = drawRoundedBox({ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm }, radiusMm);
  const holes = hole ? [drawDisc({ x: widthMm / 2, y: hole.fromTopMm }, hole.diameterMm / 2)] : [];
  return [outline, ...holes].map((contour, index) => ({
    id: firstId + index,
    contour,
    layer: CARRIER_LAYER,
    strokeColour: CARRIER_COLOUR,
    strokeWidthMm: null,
    fillColour: null,
    dash: null,
    shape: firstId + index,
  }));
}

/**
 * Where pieces may lie on a carrier, mm from its upper left corner: within its margin, below its hole.
 *
 * @example carrierRoom({ widthMm: 105, heightMm: 148, radiusMm: 4, marginMm: 5, hole: null, role: 'through', count: 1 }) // { minX: 5, minY: 5, maxX: 100, maxY: 143 }
 */
export function carrierRoom({ widthMm, heightMm, marginMm, hole }: Carrier): BoxMm {
  const within = growBox({ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm }, -marginMm);
  if (!hole) return within;
  const belowHole = hole.fromTopMm + hole.diameterMm / 2 + HOLE_RIM_MM;
  return { ...within, minY: Math.max(within.minY, belowHole) };
}
