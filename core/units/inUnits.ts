import { besideOwnWords } from '#core/units/besideOwnWords.ts';
import { FEET_PER_METRE, MM_PER_INCH, UM_PER_MIL, type UnitSystem } from '#core/units/length.ts';

/** How one metric unit is said in inches. */
interface Said {
  readonly unit: string;
  readonly factor: number;
  /** Digits after the point beside those of the metric figure: no coarser than it was. */
  readonly moreDigits: number;
}

const SAID: Readonly<Record<string, Said>> = {
  mm: { unit: 'in', factor: 1 / MM_PER_INCH, moreDigits: 2 },
  cm: { unit: 'in', factor: 10 / MM_PER_INCH, moreDigits: 1 },
  'mm²': { unit: 'in²', factor: 1 / MM_PER_INCH ** 2, moreDigits: 3 },
  'mm/s': { unit: 'in/s', factor: 1 / MM_PER_INCH, moreDigits: 1 },
  'cm/s': { unit: 'in/s', factor: 10 / MM_PER_INCH, moreDigits: 1 },
  'mm/s²': { unit: 'in/s²', factor: 1 / MM_PER_INCH, moreDigits: 0 },
  µm: { unit: 'mil', factor: 1 / UM_PER_MIL, moreDigits: 1 },
  m: { unit: 'ft', factor: FEET_PER_METRE, moreDigits: 0 },
  metres: { unit: 'feet', factor: FEET_PER_METRE, moreDigits: 0 },
};

/** Long lengths need no hundredths of an inch, mm. */
const LONG_MM = 100;

/** A figure as it stands in a sentence, with what may stand between two that share a unit. */
const FIGURE = String.raw`[−-]?\d+(?:[.,]\d+)?`;
const BETWEEN = String.raw` ?[×–] ?| to | of about | of ~| of `;
const UNITS = String.raw`mm\/s²|cm\/s|mm\/s|mm²|mm|cm|µm|metres|m`;
const QUANTITY = new RegExp(
  String.raw`(between ${FIGURE} and ${FIGURE}|(?:${FIGURE}(?:${BETWEEN}))*${FIGURE})( ?)(${UNITS})(?![\p{L}\d²/])`,
  'gu',
);

/**
 * A metric figure in the units of a bench that counts in inches, no coarser than it was.
 *
 * @param figure as it is written, with a point or a comma
 * @example inchFigure('6', 'mm') // '0.24'
 */
export function inchFigure(figure: string, unit: string): string {
  const said = SAID[unit];
  if (!said) return figure;
  const plain = figure.replace('−', '-').replace(',', '.');
  const value = Number(plain);
  const own = (plain.split('.')[1] ?? '').length;
  const isLong = unit === 'mm' && own === 0 && Math.abs(value) > LONG_MM;
  const digits = Math.max(0, own + said.moreDigits - (isLong ? 1 : 0));
  const text = String(Number((value * said.factor).toFixed(digits)));
  return figure.startsWith('−') ? text.replace('-', '−') : text;
}

/**
 * A sentence in the units of the bench: every metric length, area, speed, caliper and travel in it is said in inches,
 * mils and feet where the bench counts so.
 *
 * @param own words that people typed, names above all: they stay as they are
 * @example inUnits('Marks of 6 mm, 12 mm from the edges', 'inch') // 'Marks of 0.24 in, 0.47 in from the edges'
 */
export function inUnits(text: string, system: UnitSystem, own: readonly string[] = []): string {
  if (system === 'metric') return text;
  const say = (words: string) =>
    words.replace(QUANTITY, (_, figures: string, gap: string, unit: string) => {
      const converted = figures.replace(new RegExp(FIGURE, 'g'), (figure) => inchFigure(figure, unit));
      return `${converted}${gap === '' ? ' ' : gap}${SAID[unit]?.unit ?? unit}`;
    });
  return besideOwnWords(text, own, say);
}
