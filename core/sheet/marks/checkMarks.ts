import { colord } from 'colord';
import { roleOf, type GivenRoles } from '#core/drawing/roles/lineRoles.ts';
import { boundContour, overlap, type BoxMm } from '#core/geometry/box.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { overPrintArea } from '#core/sheet/marks/printArea.ts';
import type { Mark } from '#core/sheet/marks/marks.ts';
import type { PlacedSheet } from '#core/sheet/nest/placePieces.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';

/** Art below this brightness can be taken for a mark, 0 to 1. Common practice, no source (T20). */
const DARK = 0.5;
/** Looking needs no cutting tolerance, mm. */
const LOOK_MM = 0.3;

/**
 * What stands against a machine finding a printed sheet, in words; empty when nothing does.
 *
 * @param printArea what the machine prints and cuts of the sheet, or `null` where it does not say
 * @example checkMarks({ lines: [], images: [], over: { left: 0, top: 0, right: 0, bottom: 0 }, isInside: true }, given, sheet, [], null) // []
 */
export function checkMarks(
  placed: PlacedSheet,
  given: GivenRoles,
  sheet: Sheet,
  marks: readonly Mark[],
  printArea: BoxMm | null,
): readonly string[] {
  if (marks.length === 0) return [];
  const found: string[] = [];
  const near = placed.lines.filter(({ contour }) => {
    const box = boundContour(contour);
    const close = marks.filter(({ keepOut }) => overlap(keepOut, box));
    return close.length > 0 && flattenContour(contour, LOOK_MM).some((point) => isWithin(point, close));
  });
  const isArt = (line: (typeof near)[number]) => roleOf(line, given) === 'art';
  const isDark = ({ fillColour, strokeColour }: (typeof near)[number]) =>
    colord(fillColour ?? strokeColour ?? '#ffffff').brightness() < DARK;
  if (near.some((line) => isArt(line) && isDark(line))) {
    found.push('Dark art lies by a mark: the sensor may take it for one.');
  } else if (near.length > 0) {
    found.push('Lines reach into what the sensor needs clear around a mark.');
  }
  if (sheet.widthMm > sheet.heightMm) found.push('Landscape: the sensor reads portrait sheets better.');
  const over = overPrintArea(placed.box, printArea);
  if (over > 0 && printArea) {
    const size = `${(printArea.maxX - printArea.minX).toFixed(0)} × ${(printArea.maxY - printArea.minY).toFixed(0)} mm`;
    found.push(`Cut lines reach ${over.toFixed(1)} mm over the ${size} that can be printed and cut.`);
  }
  return found;
}

function isWithin({ x, y }: PointMm, marks: readonly Mark[]): boolean {
  return marks.some(
    ({ keepOut: { minX, minY, maxX, maxY } }) => x > minX && x < maxX && y > minY && y < maxY,
  );
}
