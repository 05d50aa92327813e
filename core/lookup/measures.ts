import { splitTerms } from '#core/lookup/terms.ts';
import { factsOf, type Family } from '#core/stack/families/families.ts';
import type { Stack } from '#core/stack/layer.ts';
import { BASIC_SIZES_INCH, basisToGsm, type BasicSize } from '#core/units/basisWeight.ts';
import { umToMil } from '#core/units/length.ts';

/** A typed word as it is looked up, and as it was typed. */
export interface SearchWord {
  readonly term: string;
  readonly said: string;
}

/** Terms of measures begin with this: nobody types one, and none is like another by its letters. */
const MARK = '#';
/** Packs, gauges and rounding differ by so much. */
const WITHIN = 0.04;
/** Weights that paper is sold in, in pounds, beside the multiples of five. */
const ODD_POUNDS = [24, 28, 32, 67];
/** Families that are sold by their weight. */
const WEIGHED: ReadonlySet<Family> = new Set(['cardstock', 'foldingCarton', 'stickerPaper']);

const MEASURE =
  /(\d+(?:[.,]\d+)?)\s*(µm|μm|um|mics?|microns?|mils?|thou|pt|mm|gsm|g\/m2|g\/m²|g|lbs?)(?![\p{L}\p{N}])/giu;

/**
 * The words of a search: measures whole, "4 mil" and "110 lb", the rest split into terms.
 *
 * @example splitSearch('vinyl 4 mil').map(({ term }) => term) // ['#mil4', 'vinyl']
 */
export function splitSearch(text: string): readonly SearchWord[] {
  const measures: SearchWord[] = [];
  const rest = text.replace(MEASURE, (said, figure: string, unit: string) => {
    const term = termOf(Number(figure.replace(',', '.')), unit.toLowerCase());
    measures.push({ term, said: said.trim() });
    return ' ';
  });
  return [...measures, ...splitTerms(rest).map((term) => ({ term, said: term }))];
}

function termOf(figure: number, unit: string): string {
  if (/^lb/.test(unit)) return `${MARK}lb${figure}`;
  if (unit.startsWith('g')) return `${MARK}g${toStep(figure, 5)}`;
  if (/^(mil|thou|pt)/.test(unit)) return `${MARK}mil${toStep(figure, 0.5)}`;
  return `${MARK}um${toStep(unit === 'mm' ? figure * 1000 : figure, 5)}`;
}

/**
 * Under which measures a sheet is found: the caliper of what is cut in µm and mil, and the weight of paper in g/m² and in
 * pounds of every basic size, each as near as packs and gauges agree; the plain figures too, for who types no unit.
 *
 * @example measureTerms([{ role: 'face', caliperUm: 100, isMeasured: true }], 'plainVinyl') // ['100', '#um100', '#mil4']
 */
export function measureTerms(stack: Stack, family: Family): readonly string[] {
  const cut = stack.find(({ role }) => role === 'face' || role === 'body');
  if (!cut) return [];
  const { caliperUm } = cut;
  const terms = [
    String(Math.round(caliperUm)),
    ...stepsNear(caliperUm, 5).map((um) => `${MARK}um${um}`),
    ...stepsNear(umToMil(caliperUm), 0.5).map((mil) => `${MARK}mil${mil}`),
  ];
  if (WEIGHED.has(family)) {
    const gsm = (caliperUm * factsOf(family).densityKgPerM3) / 1000;
    terms.push(...stepsNear(gsm, 5).flatMap((g) => [`${MARK}g${g}`, String(g)]));
    terms.push(...poundsNear(gsm).map((pounds) => `${MARK}lb${pounds}`));
  }
  return [...new Set(terms)];
}

/** What weights in pounds a grammage may be sold as, of whichever basic size. */
function poundsNear(gsm: number): readonly number[] {
  return (Object.keys(BASIC_SIZES_INCH) as BasicSize[]).flatMap((size) => {
    const pounds = gsm / basisToGsm(1, size);
    const odd = ODD_POUNDS.filter((one) => Math.abs(one - pounds) <= pounds * WITHIN);
    return [...stepsNear(pounds, 5), ...odd];
  });
}

/** Multiples of a step near a figure; the nearest always. */
function stepsNear(figure: number, step: number): readonly number[] {
  const first = Math.ceil((figure * (1 - WITHIN)) / step);
  const last = Math.floor((figure * (1 + WITHIN)) / step);
  const near = Array.from({ length: Math.max(0, last - first + 1) }, (_, index) => (first + index) * step);
  return near.length > 0 ? near : [toStep(figure, step)];
}

function toStep(figure: number, step: number): number {
  return Math.max(step, Math.round(figure / step) * step);
}

/**
 * Whether a term is a measure, which is met whole or not at all.
 *
 * @example isMeasure('#mil4') // true
 */
export function isMeasure(term: string): boolean {
  return term.startsWith(MARK);
}

/**
 * A family that typed words name, by its own name or by what people call its sheets; `null` where none does.
 *
 * @example familyNamed('glitter card 300 g') // 'cardstock'
 */
export function familyNamed(text: string): Family | null {
  const words = new Set(splitTerms(text));
  return (
    CALLED.find(([, names]) => names.some((name) => splitTerms(name).every((one) => words.has(one))))?.[0] ??
    null
  );
}

/** What sheets are called, the more telling names first. Common practice, no source. */
const CALLED: readonly (readonly [Family, readonly string[]])[] = [
  ['printableVinyl', ['printable vinyl', 'inkjet vinyl', 'print vinyl']],
  ['transferFilm', ['transfer', 'iron on', 'htv', 'flock', 'flex']],
  ['stencilSheet', ['stencil', 'mylar', 'acetate', 'polyester']],
  ['foldingCarton', ['carton', 'folding box', 'boxboard', 'packet']],
  ['stickerPaper', ['sticker', 'label', 'labels', 'stickers']],
  ['cardstock', ['card', 'cardstock', 'cover', 'cardboard']],
  ['plainVinyl', ['vinyl', 'adhesive']],
];
