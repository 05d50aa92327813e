import { drawFor, wedge } from '#devices/chance.ts';

/** What a stand-in printer made of a file. */
export interface PrintedSheet {
  readonly pages: number;
  readonly widthMm: number;
  readonly heightMm: number;
  /** How much larger or smaller than asked it came out, and by how much it is turned. */
  readonly scale: number;
  readonly turnRad: number;
  /** ISO: until then the ink smears. */
  readonly wetUntil: string;
  /** What went wrong, or empty. */
  readonly trouble: string;
}

/** What can be asked to go wrong with the next sheet. */
export const PRINT_FAULTS = ['wrongTray', 'wrongSize'] as const;
export type PrintFault = (typeof PRINT_FAULTS)[number];

const MM_PER_POINT = 25.4 / 72;
/** How far printers are off. Invented for the stand-in. */
const SCALE_SPREAD = 0.0012;
const TURN_SPREAD = 0.0015;
/** Sizes of a page below and above this are no sheets, mm. */
const LEAST_MM = 30;
const MOST_MM = 1500;

/** A file that is no print job, with what was wrong about it. */
export class PrintError extends Error {}

/**
 * Prints a file: finds its pages and their size, and is a little off as printers are.
 *
 * @param sheetNumber counts sheets: the same seed and number give the same sheet
 * @param wetMinutes how long the ink stays wet
 * @throws PrintError for what is no PDF with a page
 */
export function printFile(
  file: Buffer,
  options: {
    readonly seed: number;
    readonly sheetNumber: number;
    readonly wetMinutes: number;
    readonly fault: PrintFault | null;
    readonly now: Date;
  },
): PrintedSheet {
  const text = file.toString('latin1');
  if (!text.startsWith('%PDF-')) throw new PrintError('this is no PDF');
  if (!text.trimEnd().endsWith('%%EOF')) throw new PrintError('the PDF ends in the middle');
  const boxes = [...text.matchAll(/\/MediaBox\s*\[\s*([-\d.]+)\s+([-\d.]+)\s+([-\d.]+)\s+([-\d.]+)\s*\]/g)];
  const first = boxes[0];
  if (!first) throw new PrintError('the PDF has no page');
  const [left, bottom, right, top] = first.slice(1).map(Number) as [number, number, number, number];
  const [widthMm, heightMm] = [(right - left) * MM_PER_POINT, (top - bottom) * MM_PER_POINT];
  if (Math.min(widthMm, heightMm) < LEAST_MM || Math.max(widthMm, heightMm) > MOST_MM) {
    throw new PrintError(`a page of ${widthMm.toFixed(0)} × ${heightMm.toFixed(0)} mm is no sheet`);
  }
  const { seed, sheetNumber, fault, now, wetMinutes } = options;
  const vary = (what: string) => wedge(`${sheetNumber}/${what}`, (text) => drawFor(seed, text));
  const isShrunk = fault === 'wrongSize';
  return {
    pages: boxes.length,
    widthMm,
    heightMm,
    // "Fit to page" is what people forget to switch off.
    scale: (isShrunk ? 0.97 : 1) * (1 + SCALE_SPREAD * vary('scale')),
    turnRad: TURN_SPREAD * vary('turn'),
    wetUntil: new Date(now.getTime() + wetMinutes * 60_000).toISOString(),
    trouble:
      fault === 'wrongTray'
        ? 'it took plain paper from the other tray'
        : isShrunk
          ? 'it was fitted to the page: 97 % of its size'
          : '',
  };
}
