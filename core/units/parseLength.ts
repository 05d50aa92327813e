import { MM_PER_INCH, UM_PER_MIL, type UnitSystem } from '#core/units/length.ts';

/** µm in each unit that people type. Sources: NIST SP 811, appendix B.8; 1 point of board is a thousandth of an inch. */
const UM: Readonly<Record<string, number>> = {
  um: 1,
  µm: 1,
  micron: 1,
  microns: 1,
  mm: 1000,
  cm: 10_000,
  m: 1_000_000,
  in: 1000 * MM_PER_INCH,
  inch: 1000 * MM_PER_INCH,
  inches: 1000 * MM_PER_INCH,
  '"': 1000 * MM_PER_INCH,
  '″': 1000 * MM_PER_INCH,
  ft: 12_000 * MM_PER_INCH,
  "'": 12_000 * MM_PER_INCH,
  mil: UM_PER_MIL,
  mils: UM_PER_MIL,
  thou: UM_PER_MIL,
  pt: UM_PER_MIL,
};

const FRACTIONS: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
};
/** A whole number, a fraction or both; or a decimal with a point or a comma. */
const TYPED = /^([-−]?)(?:(\d+)\s+)?(?:(\d+)\/(\d+)|(\d*[.,]?\d+|\d+[.,]))\s*([a-zµμ"″']*)\.?$/i;

/**
 * A length as somebody typed it: a figure in the units of the bench, or in any unit that is named.
 *
 * @returns mm; `null` for what is no length
 * @example parseLength('1 1/2 in', 'metric') // 38.1
 */
export function parseLength(text: string, system: UnitSystem): number | null {
  const plain = text
    .trim()
    .replace(/[½¼¾⅛⅜⅝⅞]/g, (one) => ` ${FRACTIONS[one] ?? one}`)
    .trim()
    .replace('μ', 'µ');
  const found = TYPED.exec(plain);
  if (!found) return null;
  const [, sign, whole, above, below, decimal, named = ''] = found;
  const figure = above ? Number(above) / Number(below) : Number((decimal ?? '').replace(',', '.'));
  // "1 0.5" is no number: only a fraction stands beside a whole one.
  if (whole && !above) return null;
  const value = (sign ? -1 : 1) * (Number(whole ?? 0) + figure);
  const um = named === '' ? (system === 'inch' ? 1000 * MM_PER_INCH : 1000) : UM[named.toLowerCase()];
  if (um === undefined || !Number.isFinite(value)) return null;
  return Number(((value * um) / 1000).toPrecision(12));
}
