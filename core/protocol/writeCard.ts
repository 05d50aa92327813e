import type { TestCard } from '#core/dialIn/testCard.ts';
import { writePolylineData } from '#core/drawing/writePathData.ts';
import type { FileOptions } from '#core/program/cutProgram.ts';
import { cardPasses } from '#core/protocol/cardPasses.ts';
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
 * A card as a machine file, see {@link cardPasses}.
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
  return writeMachineFile(
    cardPasses(card, values, options.carries.force ? tabForce : null),
    sheetHeightMm,
    options,
  );
}
