import { itemAt } from '#core/collections/itemAt.ts';
import { factsOf } from '#core/stack/families/families.ts';
import { chunk } from '#core/collections/chunk.ts';
import { rankHits, TERM_FIELDS, type Hit, type Posting, type TermField } from '#core/lookup/rankHits.ts';
import { forgivenEdits, scoreTerm, splitTerms, termGrams } from '#core/lookup/terms.ts';
import { isMeasure, measureTerms, splitSearch } from '#core/lookup/measures.ts';
import type { Stack } from '#core/stack/layer.ts';
import type { ConditionKind, Material } from '#core/stack/material.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** A search reads so many words at most, and so many terms for each. */
const MOST_WORDS = 6;
const MOST_TERMS = 40;
/** So many materials are ranked at most: the best of those that every word names. */
const MOST_RANKED = 2000;

/** What of a material is found by its words. */
export type IndexedMaterial = Omit<Material, 'id' | 'conditions' | 'version' | 'isArchived'> & {
  readonly conditions: readonly { readonly kind: ConditionKind; readonly stack: Stack }[];
};

/** Writes anew under which words a material is found; its notes stay. */
export async function indexMaterial(db: Store, id: number, material: IndexedMaterial): Promise<void> {
  await db('lookup_postings').where({ material_id: id }).whereNot({ field: 'note' }).delete();
  await indexNewMaterials(db, [{ id, material }]);
}

/** Writes under which words materials are found that were never indexed. */
export async function indexNewMaterials(
  db: Store,
  added: readonly { readonly id: number; readonly material: IndexedMaterial }[],
): Promise<void> {
  await addWords(
    db,
    added.flatMap(({ id, material }) => [
      ...textsOf(material).map(([field, words]) => ({
        materialId: id,
        field,
        terms: splitTerms(words.join(' ')),
      })),
      { materialId: id, field: 'measure' as const, terms: measuresOf(material) },
    ]),
  );
}

function textsOf(material: IndexedMaterial): readonly (readonly [TermField, readonly string[]])[] {
  const { details } = material;
  return [
    ['name', [material.name]],
    ['maker', [material.maker]],
    ['product', [details.product, closeUp(details.product)]],
    ['finish', [material.finish]],
    ['colour', [material.colourName, ...details.colours.map(({ name }) => name)]],
    ['lot', details.lots.flatMap(({ code }) => [code, closeUp(code)])],
    ['nickname', details.nicknames],
    ['family', [factsOf(material.family).name]],
    ['state', material.conditions.map(({ kind }) => kind)],
  ];
}

/** Laminated or not, what is bought is the same sheet. */
function measuresOf({ conditions, family }: IndexedMaterial): readonly string[] {
  return [...new Set(conditions.flatMap(({ stack }) => measureTerms(stack, family)))];
}

/** Lets a material be found by the words of a note. */
export async function indexNote(db: Store, materialId: number, note: string): Promise<void> {
  await indexNotes(db, [{ materialId, note }]);
}

/** Lets materials be found by the words of notes. */
export async function indexNotes(
  db: Store,
  notes: readonly { readonly materialId: number; readonly note: string }[],
): Promise<void> {
  await addWords(
    db,
    notes.map(({ materialId, note }) => ({ materialId, field: 'note', terms: splitTerms(note) })),
  );
}

/** Numbers are typed with and without their dashes: 26-B is 26b too. */
function closeUp(code: string): string {
  return code.replace(/[^\p{L}\p{N}]+/gu, '');
}

interface Words {
  readonly materialId: number;
  readonly field: TermField;
  readonly terms: readonly string[];
}

/** So many rows stand in one statement. */
const MOST_ROWS = 1000;

/** Adds what texts say, in a handful of statements however many they are. */
async function addWords(db: Store, texts: readonly Words[]): Promise<void> {
  const standing = texts.map(({ terms, ...where }) => ({ ...where, terms: [...new Set(terms)] }));
  // In one order for all, so that two who add the same words do not wait for each other.
  const terms = [...new Set(standing.flatMap((one) => one.terms))].sort();
  const ids = new Map<string, number>();
  for (const some of chunk(terms, MOST_ROWS)) {
    const rows = some.map((term) => ({ term, length: term.length }));
    await db('lookup_terms').insert(rows).onConflict().ignore();
    const found: { id: number; term: string }[] = await db('lookup_terms')
      .whereIn('term', some)
      .select('id', 'term');
    for (const { id, term } of found) ids.set(term, id);
  }
  const grams = terms.flatMap((term) => termGrams(term).map((gram) => ({ gram, term_id: ids.get(term) })));
  const postings = standing.flatMap(({ materialId, field, terms: named }) =>
    named.map((term) => ({ term_id: ids.get(term), material_id: materialId, field })),
  );
  for (const some of chunk(grams, MOST_ROWS)) await db('lookup_grams').insert(some).onConflict().ignore();
  for (const some of chunk(postings, MOST_ROWS))
    await db('lookup_postings').insert(some).onConflict().ignore();
}

/**
 * Materials named by every typed word, best first, slips of the finger forgiven; where there are none the nearest, which
 * some of the words name. Empty when nothing is typed. Whatever order the words stand in, the same materials are found: the
 * rarest word chooses, the others narrow.
 */
export async function searchMaterials(db: Store, text: string, most: number): Promise<readonly Hit[]> {
  const said = new Map(splitSearch(text).map((word) => [word.term, word.said]));
  const typed = [...said.keys()].slice(0, MOST_WORDS);
  if (typed.length === 0) return [];
  const near = await Promise.all(typed.map((word) => findTerms(db, word)));
  const words = near.map((terms, index) => {
    const word = itemAt(typed, index);
    const best = terms.toSorted((a, b) => scoreTerm(word, b.term) - scoreTerm(word, a.term));
    return best.map(({ id }) => id);
  });
  const counts = await Promise.all(words.map((ids) => countPostings(db, ids)));
  const byRarity = words
    .map((ids, index) => ({ ids, count: itemAt(counts, index) }))
    .filter(({ count }) => count > 0)
    .toSorted((a, b) => a.count - b.count)
    .map(({ ids }) => ids);
  const materials = await findCandidates(db, byRarity, byRarity.length === typed.length, most);
  if (materials.length === 0) return [];
  const postings: Posting[] = await postingQuery(db, words.flat(), materials);
  const asTyped = (term: string) => said.get(term) ?? term;
  return rankHits(typed, postings, most).map((hit) => ({
    ...hit,
    met: hit.met.map((one) => ({ ...one, typed: asTyped(one.typed) })),
    missed: hit.missed.map(asTyped),
  }));
}

/** Materials that all words name; where there are none, those that the rarest words name one by one. */
async function findCandidates(
  db: Store,
  byRarity: readonly (readonly number[])[],
  isWhole: boolean,
  most: number,
): Promise<readonly number[]> {
  const found = new Set<number>();
  const take = async (words: readonly (readonly number[])[]) => {
    const rows: { materialId: number }[] = await candidateQuery(db, words);
    for (const { materialId } of rows) found.add(materialId);
  };
  if (byRarity.length === 0) return [];
  if (isWhole) await take(byRarity);
  if (found.size > 0) return [...found];
  for (const word of byRarity) if (found.size < most) await take([word]);
  return [...found];
}

async function countPostings(db: Store, termIds: readonly number[]): Promise<number> {
  const [row] = (await db('lookup_postings')
    .whereIn('term_id', [...termIds])
    .count({ count: '*' })) as { count: number | string }[];
  return Number(row?.count ?? 0);
}

interface NearTerm {
  readonly id: number;
  readonly term: string;
}

/** Terms that begin with the word, and, for words long enough, terms that share most of its pieces. */
async function findTerms(db: Store, word: string): Promise<readonly NearTerm[]> {
  if (isMeasure(word)) return db('lookup_terms').where({ term: word }).select('id', 'term');
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
      // The shortest are the nearest, and the word itself the first of them.
      .orderBy(['length', 'term'])
      .limit(MOST_TERMS)
      .select('id', 'term'),
    alike: db(shared).join('lookup_terms', 'lookup_terms.id', 'shared.term_id').select('id', 'term'),
  };
}

/**
 * The query that finds the materials which every word names; the benchmark looks at its plan.
 *
 * @param words ids of the terms of each word, best first, the rarest word first
 */
export function candidateQuery(db: Store, words: readonly (readonly number[])[]) {
  const [rarest = [], ...others] = words;
  const query = db('lookup_postings as rarest')
    .whereIn('rarest.term_id', [...rarest])
    .groupBy('rarest.material_id')
    // What fits the word best stays, where more are named than can be ranked.
    .orderByRaw(`MIN(FIELD(rarest.term_id, ${rarest.map(() => '?').join(', ')}))`, [...rarest])
    .orderByRaw(`MIN(FIELD(rarest.field, ${TERM_FIELDS.map(() => '?').join(', ')}))`, [...TERM_FIELDS])
    .orderBy('rarest.material_id')
    .limit(MOST_RANKED)
    .select({ materialId: 'rarest.material_id' });
  for (const ids of others) {
    query.whereIn(
      'rarest.material_id',
      db('lookup_postings')
        .whereIn('term_id', [...ids])
        .select('material_id'),
    );
  }
  return query;
}

/** The query that reads where terms stand, perhaps only on some materials; the benchmark looks at its plan. */
export function postingQuery(db: Store, termIds: readonly number[], materials: readonly number[] | null) {
  const query = db('lookup_postings')
    .join('lookup_terms', 'lookup_terms.id', 'lookup_postings.term_id')
    .whereIn('lookup_postings.term_id', [...termIds])
    .select({ materialId: 'material_id', term: 'term', field: 'field' });
  return materials ? query.whereIn('material_id', [...materials]) : query.limit(MOST_RANKED);
}
