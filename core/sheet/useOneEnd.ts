import type { BoxMm } from '#core/geometry/box.ts';
import type { Mark } from '#core/sheet/marks/marks.ts';
import { pageOf, type Sheet } from '#core/sheet/sheetSize.ts';

/** An end shorter than this share of its sheet leaves something worth keeping. Common practice, no source. */
const MOST_SHARE = 0.7;

/**
 * The sheet of a job that needs one end only: its marks stand around what is used, and the rest stays whole.
 *
 * @param placed boxes of what lies on its only sheet
 * @param marks as they stand now: the same room is left for them
 * @returns `null` where nothing lies on it, or too little would be left
 * @example oneEndOf(sheet, [{ minX: 6, minY: 6, maxX: 100, maxY: 80 }], [])?.heightMm // 86
 */
export function oneEndOf(sheet: Sheet, placed: readonly BoxMm[], marks: readonly Mark[]): Sheet | null {
  if (placed.length === 0) return null;
  const clear = marks.map(({ keepOut }) => keepOut).filter(({ minY }) => minY > 0);
  const room = Math.max(sheet.marginMm, ...clear.map(({ minY }) => sheet.heightMm - minY));
  const heightMm = Math.ceil(Math.max(...placed.map(({ maxY }) => maxY)) + room);
  const whole = pageOf(sheet).heightMm;
  if (heightMm > MOST_SHARE * whole) return null;
  return { ...sheet, heightMm, wholeHeightMm: whole };
}

/**
 * The whole of a sheet of which a job has one end.
 *
 * @example wholeOf({ name: 'Letter', widthMm: 216, heightMm: 100, marginMm: 6, wholeHeightMm: 280 }) // { name: 'Letter', widthMm: 216, heightMm: 280, marginMm: 6 }
 */
export function wholeOf(sheet: Sheet): Sheet {
  const { wholeHeightMm: _whole, isStarted: _started, ...rest } = sheet;
  return { ...rest, heightMm: pageOf(sheet).heightMm };
}
