import { rankHits, type Hit, type Posting, type TermField } from '#core/lookup/rankHits.ts';
import { forgivenEdits, splitTerms, termGrams } from '#core/lookup/terms.ts';
import { FAMILY_NAMES } from '#core/stack/layer.ts';
import type { ConditionKind, Material } from '#core/stack/material.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** A search reads so many words at most, and so many terms for each. */
const MOST_WORDS = 6;
const MOST_TERMS = 40;
/** A term that stands on more materials than this is read only for the materials that the other words name. */
const MOST_POSTINGS = 4000;

/** What of a material is found by its words. */
export type IndexedMaterial = Omit<Material, 'id' | 'conditions' | 'version' | 'isArchived'> & {
  readonly conditions: readonly { readonly kind: ConditionKind }[];
};

/** Writes anew under which words a material is found; its notes stay. */
export async function indexMaterial(db: Store, id: number, material: IndexedMaterial): Promise<void> {
  const { details } = material;
  const texts: readonly (readonly [TermField, readonly string[]])[] = [
    ['name', [material.name]],
    ['maker', [material.maker]],
    ['product', [details.product, closeUp(details.product)]],
    ['finish', [material.finish]],
    ['colour', [material.colourName, ...details.colours.map(({ name }) => name)]],
    ['lot', details.lots.flatMap(({ code }) => [code, closeUp(code)])],
    ['nickname', details.nicknames],
    ['family', [FAMILY_NAMES[material.family]]],
    ['state', material.conditions.map(({ kind }) => kind)],
  ];
  await db('lookup_postings').where({ material_id: id }).whereNot({ field: 'note' }).delete();
  for (const [field, words] of texts) await addTerms(db, id, field, words.join(' '));
}

/** Lets a material be found by the words of a note. */
export async function indexNote(db: Store, materialId: number, note: string): Promise<void> {
  await addTerms(db, materialId, 'note', note);
}

/** Numbers are typed with and without their dashes: 26-B is 26b too. */
function closeUp(code: string): string {
  return code.replace(/[^\p{L}\p{N}]+/gu, '');
}

async function addTerms(db: Store, materialId: number, field: TermField, text: string): Promise<void> {
  // In one order for all, so that two who add the same words do not wait for each other.
  const terms = [...new Set(splitTerms(text))].sort();
  if (terms.length === 0) return;
  await db('lookup_terms')
    .insert(terms.map((term) => ({ term, length: term.length })))
    .onConflict()
    .ignore();
  const rows: { id: number; term: string }[] = await db('lookup_terms')
    .whereIn('term', terms)
    .select('id', 'term');
  await db('lookup_grams')
    .insert(rows.flatMap(({ id, term }) => termGrams(term).map((gram) => ({ gram, term_id: id }))))
    .onConflict()
    .ignore();
  await db('lookup_postings')
    .insert(rows.map(({ id }) => ({ term_id: id, material_id: materialId, field })))
    .onConflict()
    .ignore();
}

/**
 * Materials named by every typed word, best first, slips of the finger forgiven. Empty when nothing is typed.
 */
export async function searchMaterials(db: Store, text: string, most: number): Promise<readonly Hit[]> {
  const typed = [...new Set(splitTerms(text))].slice(0, MOST_WORDS);
  if (typed.length === 0) return [];
  const near = await Promise.all(typed.map((word) => findTerms(db, word)));
  if (near.some((terms) => terms.length === 0)) return [];
  // The rarest word first: the others are then read for its materials only.
  const order = near.map((terms) => terms.map(({ id }) => id));
  const postings = await readPostings(db, order);
  return rankHits(typed, postings, most);
}

interface NearTerm {
  readonly id: number;
  readonly term: string;
}

/** Terms that begin with the word, and, for words long enough, terms that share most of its pieces. */
async function findTerms(db: Store, word: string): Promise<readonly NearTerm[]> {
  const { begun, alike } = termQueries(db, word);
  const first: NearTerm[] = await begun;
  if (forgivenEdits(word.length) === 0 || first.some(({ term }) => term === word)) return first;
  const known = new Set(first.map(({ id }) => id));
  return [...first, ...((await alike) as NearTerm[]).filter(({ id }) => !known.has(id))];
}

/** The two queries that find terms; the benchmark looks at their plans. */
export function termQueries(db: Store, word: string) {
  const grams = termGrams(word);
  const shared = db('lookup_grams')
    .whereIn('gram', [...grams])
    .groupBy('term_id')
    .having(db.raw('COUNT(*)'), '>=', Math.max(1, grams.length - 3 * forgivenEdits(word.length)))
    .orderByRaw('COUNT(*) DESC, term_id')
    .limit(MOST_TERMS)
    .select('term_id')
    .as('shared');
  return {
    begun: db('lookup_terms')
      .where('term', '>=', word)
      .andWhere('term', '<', `${word}\u{10ffff}`)
      .orderBy('term')
      .limit(MOST_TERMS)
      .select('id', 'term'),
    alike: db(shared).join('lookup_terms', 'lookup_terms.id', 'shared.term_id').select('id', 'term'),
  };
}

/** Postings of the terms of each word; after the first word only for materials still in question. */
async function readPostings(db: Store, words: readonly (readonly number[])[]): Promise<readonly Posting[]> {
  const all: Posting[] = [];
  let materials: readonly number[] | null = null;
  for (const ids of [...words].sort((a, b) => a.length - b.length)) {
    const rows: Posting[] = await postingQuery(db, ids, materials);
    materials = [...new Set(rows.map(({ materialId }) => materialId))];
    all.push(...rows);
  }
  return all;
}

/** The query that finds materials of terms, perhaps only among some; the benchmark looks at its plan. */
export function postingQuery(db: Store, termIds: readonly number[], materials: readonly number[] | null) {
  const query = db('lookup_postings')
    .join('lookup_terms', 'lookup_terms.id', 'lookup_postings.term_id')
    .whereIn('lookup_postings.term_id', [...termIds])
    .limit(MOST_POSTINGS)
    .select({ materialId: 'material_id', term: 'term', field: 'field' });
  return materials ? query.whereIn('material_id', [...materials]) : query;
}
