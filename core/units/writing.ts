import { besideOwnWords } from '#core/units/besideOwnWords.ts';

/** How a browser's region writes: the mark before decimals, and whether the month stands before its day. */
export interface Writing {
  readonly mark: '.' | ',';
  readonly isMonthFirst: boolean;
}

/** A point, and the day before its month. */
export const PLAIN_WRITING: Writing = { mark: '.', isMonthFirst: false };

/**
 * How a region writes numbers and dates; the words stay English.
 *
 * @param tag a language tag of BCP 47; plain writing for none and for what is none
 * @see ECMA-402, Intl.NumberFormat and Intl.DateTimeFormat, whose locale data are those of the Unicode CLDR
 * @example writingOf('de-DE') // { mark: ',', isMonthFirst: false }
 */
export function writingOf(tag: string | undefined): Writing {
  if (!tag) return PLAIN_WRITING;
  try {
    const decimal = new Intl.NumberFormat(tag).formatToParts(0.5).find(({ type }) => type === 'decimal');
    const parts = new Intl.DateTimeFormat(tag, { day: 'numeric', month: 'numeric' })
      .formatToParts(new Date(0))
      .map(({ type }) => type);
    return {
      mark: decimal?.value === ',' ? ',' : '.',
      isMonthFirst: parts.indexOf('month') < parts.indexOf('day'),
    };
  } catch (error) {
    if (error instanceof RangeError) return PLAIN_WRITING;
    throw error;
  }
}

/** A decimal in a sentence: not one of several numbers joined by points, as an address or a version is. */
const DECIMAL = /(?<![\d.,\p{L}])(\d+)\.(\d+)(?!\d|\.\d)/gu;

/**
 * A sentence with its decimals as a region writes them.
 *
 * @param own words that people typed, names above all: they stay as they are
 * @example writeDecimals('0.4 mm at 12.5', { mark: ',', isMonthFirst: false }) // '0,4 mm at 12,5'
 */
export function writeDecimals(text: string, { mark }: Writing, own: readonly string[] = []): string {
  if (mark === '.' || !text.includes('.')) return text;
  return besideOwnWords(text, own, (words) => words.replace(DECIMAL, `$1${mark}$2`));
}
