import { AppError } from '#core/errors/appError.ts';
import { MM_PER_INCH } from '#core/units/length.ts';

/** Basic sheet sizes in inches that a basis weight is counted on, 500 sheets each. */
export const BASIC_SIZES_INCH = {
  cover: [20, 26],
  text: [25, 38],
  index: [25.5, 30.5],
  bond: [17, 22],
} as const;
export type BasicSize = keyof typeof BASIC_SIZES_INCH;

const REAM_SHEETS = 500;
/** Grams in one avoirdupois pound, exact. Source: NIST SP 811, appendix B.8. */
const GRAM_PER_POUND = 453.59237;

/**
 * Grammage in g/m² of a basis weight: what 500 sheets of the basic size weigh, over their area.
 *
 * @throws AppError `badInput` when the weight is not above 0 and at most 1000 lb
 * @example basisToGsm(80, 'cover') // 216.3
 */
export function basisToGsm(pounds: number, size: BasicSize): number {
  if (!(pounds > 0 && pounds <= 1000)) {
    throw new AppError('badInput', `a basis weight of ${pounds} lb is outside 0 to 1000 lb`);
  }
  const [width, height] = BASIC_SIZES_INCH[size];
  const areaM2 = (width * height * MM_PER_INCH * MM_PER_INCH) / 1e6;
  return (pounds * GRAM_PER_POUND) / (REAM_SHEETS * areaM2);
}

/** A grammage as it was said, with the words for what was understood. */
export interface PaperWeight {
  readonly gsm: number;
  readonly words: string;
}

const SIZE_WORDS: Readonly<Record<string, BasicSize>> = {
  cover: 'cover',
  card: 'cover',
  text: 'text',
  book: 'text',
  index: 'index',
  bond: 'bond',
  writing: 'bond',
};

/**
 * Reads a paper weight as people say it.
 *
 * @returns `null` when the text names no weight
 * @example readPaperWeight('80 lb cover')?.words // '80 lb cover, 216 g/m²'
 * @example readPaperWeight('220 gsm') // { gsm: 220, words: '220 g/m²' }
 */
export function readPaperWeight(text: string): PaperWeight | null {
  const said = text.trim().toLowerCase().replace(',', '.');
  const metric = /^(\d+(?:\.\d+)?)\s*(?:gsm|g\s*\/?\s*(?:m2|m²|qm|sqm)|g)$/.exec(said);
  if (metric) {
    const gsm = Number(metric[1]);
    return gsm > 0 ? { gsm, words: `${gsm} g/m²` } : null;
  }
  const imperial = /^(\d+(?:\.\d+)?)\s*(?:lbs?\.?|#|pounds?)?\s*([a-z]+)$/.exec(said);
  const size = SIZE_WORDS[imperial?.[2] ?? ''];
  const pounds = Number(imperial?.[1]);
  if (!size || !(pounds > 0)) return null;
  const gsm = basisToGsm(pounds, size);
  return { gsm, words: `${pounds} lb ${size}, ${gsm.toFixed(0)} g/m²` };
}
