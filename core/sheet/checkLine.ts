import { mmToInch, type UnitSystem } from '#core/units/length.ts';
import type { Mark } from '#core/sheet/marks/marks.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';

/** A line of known length on the print: measured, it tells whether the printer scaled the page. */
export interface CheckLine {
  readonly fromX: number;
  readonly toX: number;
  readonly y: number;
  readonly lengthMm: number;
}

/** Lengths that are easily measured, the longest first, mm. */
const LENGTHS_MM = [100, 50];
/** From the lower edge: below what lies on the sheet, above what printers cannot reach, mm. */
const FROM_EDGE_MM = 4.6;
/** Room beside it, mm. */
const CLEAR_MM = 2;

/**
 * Where the check line of a print goes: in the middle of the lower edge, clear of what the marks need; `null` on a sheet
 * too narrow for one. Common practice, no source (T41).
 *
 * @example placeCheckLine(sheet, [])?.lengthMm // 100
 */
export function placeCheckLine(
  { widthMm, heightMm }: Pick<Sheet, 'widthMm' | 'heightMm'>,
  marks: readonly Mark[],
): CheckLine | null {
  const y = heightMm - FROM_EDGE_MM;
  const near = marks.filter(({ keepOut }) => keepOut.maxY >= y - CLEAR_MM && keepOut.minY <= y + CLEAR_MM);
  const middle = widthMm / 2;
  for (const lengthMm of LENGTHS_MM) {
    const [fromX, toX] = [middle - lengthMm / 2, middle + lengthMm / 2];
    const isOnSheet = fromX >= 2 * FROM_EDGE_MM;
    const isClear = near.every(
      ({ keepOut }) => keepOut.maxX <= fromX - CLEAR_MM || keepOut.minX >= toX + CLEAR_MM,
    );
    if (isOnSheet && isClear) return { fromX, toX, y, lengthMm };
  }
  return null;
}

/** The finest part of an inch on a workshop's rule. */
const PARTS_OF_INCH = 32;

/**
 * How long a check line is on the rule of a bench: in mm, or in parts of an inch (100 mm are 3 15/16 in to a hundredth
 * of a millimetre).
 *
 * @example nameCheckLength(100, 'inch') // '3 15/16 in'
 */
export function nameCheckLength(lengthMm: number, system: UnitSystem): string {
  if (system === 'metric') return `${lengthMm} mm`;
  const parts = Math.round(mmToInch(lengthMm) * PARTS_OF_INCH);
  const whole = Math.floor(parts / PARTS_OF_INCH);
  let [over, under] = [parts % PARTS_OF_INCH, PARTS_OF_INCH];
  while (over > 0 && over % 2 === 0) [over, under] = [over / 2, under / 2];
  return [whole > 0 ? whole : '', over > 0 ? `${over}/${under}` : '', 'in'].filter(Boolean).join(' ');
}
