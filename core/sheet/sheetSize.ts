import { AppError } from '#core/errors/appError.ts';
import { growBox, type BoxMm } from '#core/geometry/box.ts';
import { inchToMm } from '#core/units/length.ts';

/** A sheet or a length of roll. `marginMm` is what the machine cannot reach along every edge. */
export interface Sheet {
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marginMm: number;
  /** On a mat: how far the sheet's lower left corner lies from the mat's; 0 where nothing is said. */
  readonly matLeftMm?: number | undefined;
  readonly matBottomMm?: number | undefined;
  /**
   * How long the sheet is of which this is one end, the one at its lower edge; absent where the job has it whole. Turned
   * end for end, the other end serves the next job.
   */
  readonly wholeHeightMm?: number | undefined;
  /** The other end was used before. */
  readonly isStarted?: boolean | undefined;
}

/**
 * The page that a sheet is printed on: the job's end lies at its lower edge.
 *
 * @returns its height, and how far down the job's part begins, mm
 * @example pageOf({ heightMm: 100, wholeHeightMm: 280 }) // { heightMm: 280, downMm: 180 }
 */
export function pageOf({ heightMm, wholeHeightMm }: Pick<Sheet, 'heightMm' | 'wholeHeightMm'>): {
  readonly heightMm: number;
  readonly downMm: number;
} {
  const whole = Math.max(heightMm, wholeHeightMm ?? heightMm);
  return { heightMm: whole, downMm: whole - heightMm };
}

/**
 * Where the middle of a page lies that is laid edge on edge with its sheet, mm of the job's part.
 *
 * @example middleOfPage({ widthMm: 200, heightMm: 100, wholeHeightMm: 280 }) // { xMm: 100, yMm: -40 }
 */
export function middleOfPage(sheet: Pick<Sheet, 'widthMm' | 'heightMm' | 'wholeHeightMm'>): {
  readonly xMm: number;
  readonly yMm: number;
} {
  const { heightMm, downMm } = pageOf(sheet);
  return { xMm: sheet.widthMm / 2, yMm: heightMm / 2 - downMm };
}

/** Sizes to choose from. Sources: ISO 216 for A sizes; ANSI/ASME Y14.1 for Letter and Ledger. */
export const SHEET_SIZES: readonly Pick<Sheet, 'name' | 'widthMm' | 'heightMm'>[] = [
  { name: 'A5', widthMm: 148, heightMm: 210 },
  { name: 'A4', widthMm: 210, heightMm: 297 },
  { name: 'A3', widthMm: 297, heightMm: 420 },
  { name: 'Letter', widthMm: inchToMm(8.5), heightMm: inchToMm(11) },
  { name: 'Ledger', widthMm: inchToMm(11), heightMm: inchToMm(17) },
  { name: 'half Letter', widthMm: inchToMm(5.5), heightMm: inchToMm(8.5) },
  { name: '305 × 305 mm', widthMm: 305, heightMm: 305 },
  { name: 'roll 305 × 500 mm', widthMm: 305, heightMm: 500 },
  { name: 'roll 305 × 1000 mm', widthMm: 305, heightMm: 1000 },
  { name: 'roll 610 × 500 mm', widthMm: 610, heightMm: 500 },
  { name: 'roll 610 × 1000 mm', widthMm: 610, heightMm: 1000 },
];

/**
 * What of a sheet lies within its margins.
 *
 * @example usableBox({ widthMm: 210, heightMm: 297, marginMm: 6 }) // { minX: 6, minY: 6, maxX: 204, maxY: 291 }
 */
export function usableBox({
  widthMm,
  heightMm,
  marginMm,
}: Pick<Sheet, 'widthMm' | 'heightMm' | 'marginMm'>): BoxMm {
  return growBox({ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm }, -marginMm);
}

/**
 * @throws AppError `badInput` for a sheet of no size or a margin that leaves nothing
 * @example requireSheet(sheet) === undefined // true
 */
export function requireSheet(sheet: Sheet): void {
  const usable = Math.min(sheet.widthMm, sheet.heightMm) - 2 * sheet.marginMm;
  if (usable > 0 && sheet.marginMm >= 0 && Number.isFinite(usable)) return;
  throw new AppError(
    'badInput',
    `a sheet of ${sheet.widthMm} × ${sheet.heightMm} mm with a margin of ${sheet.marginMm} mm leaves nothing to cut`,
  );
}
