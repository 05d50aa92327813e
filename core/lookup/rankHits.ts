import { scoreTerm } from '#core/lookup/terms.ts';

/** Where a term stands: what the pack says weighs more than an old note. */
export const TERM_FIELDS = [
  'name',
  'maker',
  'product',
  'finish',
  'colour',
  'lot',
  'nickname',
  'family',
  'state',
  'measure',
  'note',
] as const;
export type TermField = (typeof TERM_FIELDS)[number];

const FIELD_WEIGHTS: Readonly<Record<TermField, number>> = {
  name: 1,
  nickname: 1,
  lot: 0.95,
  product: 0.95,
  maker: 0.8,
  colour: 0.8,
  finish: 0.7,
  family: 0.6,
  state: 0.6,
  measure: 0.7,
  note: 0.5,
};

/** That a material has a term in a field. */
export interface Posting {
  readonly materialId: number;
  readonly term: string;
  readonly field: TermField;
}

/** A material that answers to what was typed. */
export interface Hit {
  readonly materialId: number;
  readonly score: number;
  /** The term and field that typed words met, in the order typed; a word that met nothing is left out. */
  readonly met: readonly { readonly typed: string; readonly term: string; readonly field: TermField }[];
  /** Typed words that met nothing. */
  readonly missed: readonly string[];
}

/**
 * Materials that typed words name, those first that most of them name, then the best; equal ones by id.
 *
 * @param typed words as {@link splitTerms} gives them
 * @param postings of all terms that may match any of them
 * @example rankHits(['matt'], [{ materialId: 3, term: 'matt', field: 'name' }], 5)[0].materialId // 3
 */
export function rankHits(
  typed: readonly string[],
  postings: readonly Posting[],
  most: number,
): readonly Hit[] {
  const scores = new Map<string, number>();
  const scoreOf = (word: string, term: string): number => {
    const key = `${word}\0${term}`;
    const known = scores.get(key) ?? scoreTerm(word, term);
    scores.set(key, known);
    return known;
  };
  const found = new Map<number, ((Posting & { value: number }) | undefined)[]>();
  for (const posting of postings) {
    const best = found.get(posting.materialId) ?? [];
    typed.forEach((word, index) => {
      const value = scoreOf(word, posting.term) * FIELD_WEIGHTS[posting.field];
      if (value > (best[index]?.value ?? 0)) best[index] = { ...posting, value };
    });
    found.set(posting.materialId, best);
  }
  const hits = [...found].flatMap(([materialId, best]): readonly Hit[] => {
    const met = typed.flatMap((word, index) => {
      const one = best[index];
      return one ? [{ typed: word, term: one.term, field: one.field }] : [];
    });
    const score = best.reduce((sum, one) => sum + (one?.value ?? 0), 0) / typed.length;
    const missed = typed.filter((_, index) => !best[index]);
    return met.length === 0 ? [] : [{ materialId, score, met, missed }];
  });
  return hits
    .sort((a, b) => b.met.length - a.met.length || b.score - a.score || a.materialId - b.materialId)
    .slice(0, most);
}
