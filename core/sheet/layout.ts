import { boundPoints, cornersOf, middleOf, type BoxMm } from '#core/geometry/box.ts';
import type { Carrier } from '#core/sheet/carrier/carrier.ts';
import { composeAffine, mapPoint, type Affine } from '#core/geometry/affine.ts';

/** Where one piece lies: the middle of its box on the sheet, mm, and how far it is turned to the right. */
export interface Placement {
  readonly piece: number;
  /** Which sheet of the job, from 0. */
  readonly sheet: number;
  readonly xMm: number;
  readonly yMm: number;
  readonly turnDeg: number;
}

/** Which turns pieces may take: card with a grain may only stand on its head. */
export const TURNS = ['none', 'half', 'quarter', 'eighth'] as const;
export type Turns = (typeof TURNS)[number];

export const TURN_WORDS: Readonly<Record<Turns, string>> = {
  none: 'as drawn',
  half: 'as drawn or on its head (keeps the grain)',
  quarter: 'by quarter turns',
  eighth: 'by eighths of a turn',
};

/** How pieces are laid out when they are: close together, or in straight rows. Absent: as somebody laid them. */
export const ARRANGEMENTS = ['rows', 'packed'] as const;
export type Arrangement = (typeof ARRANGEMENTS)[number];

/** What holds for one drawing of a job, where it differs from the rest. */
export interface DrawingLayout {
  /** Copies of each of its pieces. */
  readonly copies?: number | undefined;
  readonly turns?: Turns | undefined;
  readonly isWhole?: boolean | undefined;
  /** It is the whole page of this sheet, from 0, painted elsewhere: it lies still, edge on edge. */
  readonly page?: number | undefined;
}

/** How pieces are laid out, and where they lie. */
export interface Layout {
  /** True while the drawing is laid out as one piece, as it was drawn. */
  readonly isWhole: boolean;
  /** Copies wanted of every piece; 0 fills one sheet. */
  readonly copies: number;
  /** Copies of single pieces, by their index: they count instead of `copies`, 0 leaves one out. */
  readonly quantities: Readonly<Record<string, number>>;
  readonly turns: Turns;
  /** Least distance between pieces, mm. */
  readonly spacingMm: number;
  readonly placements: readonly Placement[];
  readonly arrangement?: Arrangement | undefined;
  /** By the number of a drawing. */
  readonly byDrawing?: Readonly<Record<string, DrawingLayout>> | undefined;
  /** The cards that pieces are laid out on, each cut out of the sheet; absent where they lie on the sheet itself. */
  readonly carrier?: Carrier | undefined;
}

/**
 * The turns that are tried, in degrees.
 *
 * @example anglesOf('quarter') // [0, 90, 180, 270]
 */
export function anglesOf(turns: Turns): readonly number[] {
  const count = { none: 1, half: 2, quarter: 4, eighth: 8 }[turns];
  return Array.from({ length: count }, (_, index) => (360 / count) * index);
}

/**
 * How many sheets a layout takes; 0 when nothing is placed.
 *
 * @example countSheets({ placements: [{ piece: 0, sheet: 1, xMm: 0, yMm: 0, turnDeg: 0 }] }) // 2
 */
export function countSheets({ placements }: Pick<Layout, 'placements'>): number {
  return placements.reduce((most, { sheet }) => Math.max(most, sheet + 1), 0);
}

/**
 * The map that carries a piece with this box to its place.
 *
 * @example affineOf({ minX: 0, minY: 0, maxX: 10, maxY: 10 }, { xMm: 5, yMm: 5, turnDeg: 0 }) // [1, 0, 0, 1, 0, 0]
 */
export function affineOf(box: BoxMm, { xMm, yMm, turnDeg }: Omit<Placement, 'piece' | 'sheet'>): Affine {
  const angle = (turnDeg * Math.PI) / 180;
  const [cos, sin] = turnDeg % 90 === 0 ? quarterTurn(turnDeg) : [Math.cos(angle), Math.sin(angle)];
  const { x, y } = middleOf(box);
  const toMiddle: Affine = [1, 0, 0, 1, -x, -y];
  return composeAffine([cos, sin, -sin, cos, xMm, yMm], toMiddle);
}

/** Exact, so that a quarter turn leaves no dust. */
function quarterTurn(turnDeg: number): readonly [number, number] {
  const quarters = (((turnDeg / 90) % 4) + 4) % 4;
  return [
    [1, 0],
    [0, 1],
    [-1, 0],
    [0, -1],
  ][quarters] as unknown as readonly [number, number];
}

/**
 * The upright box of a turned box.
 *
 * @example turnBox({ minX: 0, minY: 0, maxX: 2, maxY: 1 }, [1, 0, 0, 1, 3, 0]) // { minX: 3, minY: 0, maxX: 5, maxY: 1 }
 */
export function turnBox(box: BoxMm, affine: Affine): BoxMm {
  return boundPoints(cornersOf(box).map((corner) => mapPoint(affine, corner)));
}

/**
 * The box of one placement on its sheet.
 *
 * @returns `null` where its piece is gone
 * @example placedBox({ piece: 0, sheet: 0, xMm: 0, yMm: 0, turnDeg: 0 }, []) // null
 */
export function placedBox(placement: Placement, pieces: readonly { readonly box: BoxMm }[]): BoxMm | null {
  const piece = pieces[placement.piece];
  return piece ? turnBox(piece.box, affineOf(piece.box, placement)) : null;
}

/**
 * The boxes of what lies on one sheet. A place whose piece is gone has none.
 *
 * @example placedBoxes({ placements: [{ piece: 0, sheet: 0, xMm: 5, yMm: 5, turnDeg: 0 }] }, [{ box: { minX: 0, minY: 0, maxX: 10, maxY: 10 } }], 0)[0] // { minX: 0, minY: 0, maxX: 10, maxY: 10 }
 */
export function placedBoxes(
  { placements }: Pick<Layout, 'placements'>,
  pieces: readonly { readonly box: BoxMm }[],
  sheetIndex: number,
): readonly BoxMm[] {
  return placements
    .filter(({ sheet }) => sheet === sheetIndex)
    .map((placement) => placedBox(placement, pieces))
    .filter((box) => box !== null);
}
