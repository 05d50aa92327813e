import { itemAt } from '#core/collections/itemAt.ts';
import { AppError } from '#core/errors/appError.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** Test pieces, each drawn for what it shows. */
export const TEST_PIECES = ['square', 'star', 'circle', 'coupon', 'crease', 'spot'] as const;
export type TestPieceKind = (typeof TEST_PIECES)[number];

/** The words for each piece, and what to look at. */
export const PIECE_WORDS: Readonly<Record<TestPieceKind, { readonly name: string; readonly shows: string }>> =
  {
    square: { name: 'square in square', shows: 'depth, and whether the corners let go' },
    star: { name: 'narrow star, 10 mm', shows: 'whether fine points hold or tear' },
    circle: { name: 'circle, 25 mm', shows: 'an even depth all round, and whether the ends meet' },
    coupon: { name: 'perforated coupon', shows: 'how a piece of the real size holds and pops out' },
    crease: { name: 'crease strip', shows: 'whether the fold is clean and its back does not crack' },
    spot: { name: 'finest spot of a job', shows: 'whether the finest lines of that very job hold or tear' },
  };

/** One line of a piece, closed by its last point where it is a ring. Mm from the cell's upper left corner. */
export interface PieceLine {
  readonly points: readonly PointMm[];
  readonly isTab: boolean;
}

/** A piece with its size. */
export interface TestPiece {
  readonly kind: TestPieceKind;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly lines: readonly PieceLine[];
}

/** What a coupon is perforated with, and how large the real piece is. */
export interface CouponShape {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly cutLengthMm: number;
  readonly tabLengthMm: number;
}

/** Part of a drawing with a frame around it, what lies inside first. Mm from its upper left corner. */
export interface SpotShape {
  /** The job it is from. */
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly lines: readonly (readonly PointMm[])[];
}

const USUAL_COUPON: CouponShape = { widthMm: 40, heightMm: 30, cutLengthMm: 10, tabLengthMm: 1 };

/**
 * Draws a test piece.
 *
 * @param coupon the real piece's size and its perforation; used by `coupon` alone
 * @param spot the lines of a drawing; used by `spot` alone
 * @throws AppError `badInput` for a spot of no job
 * @example makeTestPiece('circle').widthMm // 25
 */
export function makeTestPiece(
  kind: TestPieceKind,
  coupon: CouponShape = USUAL_COUPON,
  spot?: SpotShape,
): TestPiece {
  switch (kind) {
    case 'spot':
      if (!spot) throw new AppError('badInput', 'choose the job whose finest spot is to be cut');
      return piece(
        kind,
        spot.widthMm,
        spot.heightMm,
        spot.lines.map((points) => ({ points, isTab: false })),
      );
    case 'square':
      // What lies inside is cut first: cut through, the outer square lies loose.
      return piece(kind, 10, 10, [ring(square(3, 7)), ring(square(0, 10))]);
    case 'star':
      return piece(kind, 10, 10, [ring(star(5, 5, 1.6, 5))]);
    case 'circle':
      return piece(kind, 25, 25, [ring(circle(12.5))]);
    case 'coupon':
      return piece(kind, coupon.widthMm, coupon.heightMm, perforateBox(coupon));
    case 'crease':
      return piece(kind, 40, 12, [{ points: [at(2, 6), at(38, 6)], isTab: false }]);
  }
}

function piece(
  kind: TestPieceKind,
  widthMm: number,
  heightMm: number,
  lines: readonly PieceLine[],
): TestPiece {
  return { kind, widthMm, heightMm, lines };
}

const at = (x: number, y: number): PointMm => ({ x, y });
const ring = (points: readonly PointMm[]): PieceLine => ({
  points: [...points, itemAt(points, 0)],
  isTab: false,
});

function square(from: number, to: number): readonly PointMm[] {
  return [at(from, from), at(to, from), at(to, to), at(from, to)];
}

/** Five narrow points: the inner radius is a third of the outer. */
function star(centre: number, points: number, inner: number, outer: number): readonly PointMm[] {
  return Array.from({ length: points * 2 }, (_, index) => {
    const radius = index % 2 === 0 ? outer : inner;
    const angle = (Math.PI * index) / points - Math.PI / 2;
    return at(centre + radius * Math.cos(angle), centre + radius * Math.sin(angle));
  });
}

/** 72 chords: at 12.5 mm they leave the circle by 0.012 mm. */
function circle(radius: number): readonly PointMm[] {
  return Array.from({ length: 72 }, (_, index) => {
    const angle = (2 * Math.PI * index) / 72;
    return at(radius + radius * Math.cos(angle), radius + radius * Math.sin(angle));
  });
}

/** Each side in whole equal periods, half a cut at either end so that no tab sits on a corner. */
function perforateBox({ widthMm, heightMm, cutLengthMm, tabLengthMm }: CouponShape): readonly PieceLine[] {
  const corners = [at(0, 0), at(widthMm, 0), at(widthMm, heightMm), at(0, heightMm)];
  return corners.flatMap((from, side) => {
    const to = itemAt(corners, (side + 1) % 4);
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    const tabs = Math.max(1, Math.round(length / (cutLengthMm + tabLengthMm)));
    const period = length / tabs;
    const along = (mm: number) =>
      at(from.x + ((to.x - from.x) * mm) / length, from.y + ((to.y - from.y) * mm) / length);
    const lines: PieceLine[] = [];
    let last = 0;
    for (let tab = 0; tab < tabs; tab++) {
      const start = (tab + 0.5) * period - tabLengthMm / 2;
      lines.push({ points: [along(last), along(start)], isTab: false });
      lines.push({ points: [along(start), along(start + tabLengthMm)], isTab: true });
      last = start + tabLengthMm;
    }
    lines.push({ points: [along(last), along(length)], isTab: false });
    return lines;
  });
}
