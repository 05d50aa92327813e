import { colord } from 'colord';
import { roleOf, type GivenRoles } from '#core/drawing/lineRoles.ts';
import { boundContour, overlap } from '#core/geometry/box.ts';
import type { Mark } from '#core/sheet/marks.ts';
import type { PlacedSheet } from '#core/sheet/placePieces.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';
import type { PrintAndCutArea } from '#core/station/machine.ts';

/** Art below this brightness can be taken for a mark, 0 to 1. Common practice, no source (T20). */
const DARK = 0.5;

/** What stands against a machine finding a printed sheet, in words; empty when nothing does. */
export function checkMarks(
  placed: PlacedSheet,
  given: GivenRoles,
  sheet: Sheet,
  marks: readonly Mark[],
  areas: readonly PrintAndCutArea[],
): readonly string[] {
  if (marks.length === 0) return [];
  const found: string[] = [];
  const near = placed.lines.filter((line) => {
    const box = boundContour(line.contour);
    return marks.some(({ keepOut }) => overlap(keepOut, box));
  });
  const isArt = (line: (typeof near)[number]) => roleOf({ ...line, id: line.sourceId }, given) === 'art';
  const isDark = ({ fillColour, strokeColour }: (typeof near)[number]) =>
    colord(fillColour ?? strokeColour ?? '#ffffff').brightness() < DARK;
  if (near.some((line) => isArt(line) && isDark(line))) {
    found.push('Dark art lies by a mark: the sensor may take it for one.');
  } else if (near.length > 0) {
    found.push('Lines reach into what the sensor needs clear around a mark.');
  }
  if (sheet.widthMm > sheet.heightMm) found.push('Landscape: the sensor reads portrait sheets better.');
  const area = areas.find((one) => sheet.name.startsWith(one.sheet));
  if (area && placed.box) {
    const { minX, minY, maxX, maxY } = placed.box;
    const [left, top] = [(sheet.widthMm - area.widthMm) / 2, (sheet.heightMm - area.heightMm) / 2];
    const over = Math.max(
      left - minX,
      top - minY,
      maxX - (left + area.widthMm),
      maxY - (top + area.heightMm),
    );
    if (over > 0.05) {
      const size = `${area.widthMm} × ${area.heightMm} mm`;
      found.push(
        `Cut lines reach ${over.toFixed(1)} mm over the ${size} that can be printed and cut on ${area.sheet}.`,
      );
    }
  }
  return found;
}
