import type { TestCard } from '#core/dialIn/testCard.ts';
import { writePolylineData } from '#core/drawing/writePathData.ts';
import type { Stroke } from '#core/passes/plan.ts';
import type { FileOptions } from '#core/program/cutProgram.ts';
import { writeMachineFile } from '#core/protocol/machineFile.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';

/**
 * A card as SVG at real size, or as a guide to print: frames and figures without the lines to cut.
 *
 * @param sheet size of the scrap or sheet it lies on, mm
 * @example writeCardSvg(testCard, sheet, 'cut').startsWith('<svg') // true
 */
export function writeCardSvg(
  card: TestCard,
  sheet: { readonly widthMm: number; readonly heightMm: number },
  kind: 'cut' | 'guide',
): string {
  const lines = card.strokes
    .filter(({ isLabel, isTab }) => (kind === 'cut' ? true : isLabel) && !(kind === 'cut' && isTab))
    .map(({ points, isLabel }) => {
      const colour = isLabel ? '#5B6870' : '#1E2A32';
      return `  <path d="${writePolylineData(points)}" fill="none" stroke="${colour}" stroke-width="0.2"/>`;
    });
  const { minX, minY, maxX, maxY } = card.box;
  const frame =
    kind === 'guide'
      ? [
          `  <rect x="${minX - 1}" y="${minY - 1}" width="${maxX - minX + 2}" height="${maxY - minY + 2}" fill="none" stroke="#5B6870" stroke-width="0.2" stroke-dasharray="2 1"/>`,
        ]
      : [];
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${sheet.widthMm}mm" height="${sheet.heightMm}mm" viewBox="0 0 ${sheet.widthMm} ${sheet.heightMm}">`,
    ...frame,
    ...lines,
    '</svg>',
    '',
  ].join('\n');
}

/**
 * A card as a machine file. Figures are cut at the lowest force of the card, so that they mark without falling out;
 * tabs are cut at `tabForce`.
 *
 * @param values everything but force, speed and passes, which each cell has its own of
 * @example writeCardFile(testCard, 297, values, file).startsWith('IN;') // true
 */
export function writeCardFile(
  card: TestCard,
  sheetHeightMm: number,
  values: SettingValues,
  options: FileOptions,
  tabForce: number | null = null,
): string {
  const lowest = Math.min(...card.cells.map(({ force }) => force));
  const toStroke = (points: Stroke['points'], cell: number): Stroke => ({
    contourId: cell,
    repeat: 0,
    points,
    isTab: false,
  });
  const labels = card.strokes.filter(({ isLabel }) => isLabel);
  const passes = card.cells.flatMap((cell, index) => {
    const own = card.strokes.filter((stroke) => stroke.cell === index && !stroke.isLabel);
    const at = (force: number, strokes: typeof own) =>
      strokes.length === 0
        ? []
        : [
            {
              values: { ...values, force, speed: cell.speed, passes: 1 },
              strokes: strokes.map(({ points }) => toStroke(points, index)),
            },
          ];
    return [
      ...at(
        tabForce ?? cell.force,
        own.filter(({ isTab }) => isTab && tabForce !== null),
      ),
      ...at(
        cell.force,
        own.filter(({ isTab }) => !isTab),
      ),
    ];
  });
  const figures = {
    values: { ...values, force: lowest, passes: 1 },
    strokes: labels.map(({ points, cell }) => toStroke(points, cell)),
  };
  return writeMachineFile(labels.length > 0 ? [...passes, figures] : passes, sheetHeightMm, options);
}
