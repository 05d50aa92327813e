import { AppError } from '#core/errors/appError.ts';

/** A CSS pixel, and a user unit where nothing else is said. Source: W3C CSS Values and Units 3, section 6.2. */
export const MM_PER_PIXEL = 25.4 / 96;

/** Millimetres per unit. A CSS pixel is 1/96 inch. Source: W3C CSS Values and Units 3, section 6.2. */
const MM_PER_UNIT: Readonly<Record<string, number>> = {
  '': MM_PER_PIXEL,
  px: MM_PER_PIXEL,
  mm: 1,
  cm: 10,
  q: 0.25,
  in: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
};

const LENGTH = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*([a-z%]*)\s*$/i;

/**
 * An SVG length in mm, or `null` for a percentage, which depends on what surrounds it.
 *
 * @throws AppError `badDrawing` for what is no number or has an unknown unit
 * @example readSvgLength('1in') // 25.4
 */
export function readSvgLength(text: string): number | null {
  const match = LENGTH.exec(text);
  if (!match) throw new AppError('badDrawing', `"${clip(text)}" is not a length`);
  const unit = (match[2] ?? '').toLowerCase();
  if (unit === '%') return null;
  const mmPerUnit = MM_PER_UNIT[unit];
  if (mmPerUnit === undefined) {
    throw new AppError(
      'badDrawing',
      `"${clip(text)}" has the unknown unit "${unit}"; known: mm, cm, in, pt, pc, px`,
    );
  }
  return Number(match[1]) * mmPerUnit;
}

function clip(text: string): string {
  return text.length > 40 ? `${text.slice(0, 40)}…` : text;
}
