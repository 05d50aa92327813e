import { AppError } from '#core/errors/appError.ts';
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
