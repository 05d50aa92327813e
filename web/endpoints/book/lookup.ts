import type { z } from 'zod';
import type { Store } from '#store/connection/connectStore.ts';
import { searchMaterials } from '#store/repositories/book/lookup.ts';
import { findAnswers, type FoundMaterial } from '#store/repositories/book/lookupAnswers.ts';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';
import { lookupQuerySchema, lookupReplySchema, type LookupHit } from '#web/schemas/lookup.ts';

const MOST_HITS = 12;

export const getLookup = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/lookup',
  summary:
    'Materials by anything printed on the pack, slips of the finger forgiven, with what is kept at a station.',
  query: lookupQuerySchema,
  reply: lookupReplySchema,
  handle: ({ query }, { store }) => lookUp(store, query),
});

/** Found materials, best first; without a text the first by name. */
async function lookUp(
  store: Store,
  { text, machineId }: z.infer<typeof lookupQuerySchema>,
): Promise<{ hits: readonly LookupHit[] }> {
  const found = text ? await searchMaterials(store, text, MOST_HITS) : await firstByName(store);
  const ids = found.map(({ materialId }) => materialId);
  const materials = await findAnswers(store, ids, machineId ?? null);
  const hits = materials.map((material) => {
    const { met = [], missed = [] } = found.find(({ materialId }) => materialId === material.id) ?? {};
    const { id: materialId, name, maker, family, colourHex, states } = material;
    const isStateAsked = differsByState(material);
    return {
      materialId,
      name,
      maker,
      family,
      colourHex,
      states,
      isStateAsked,
      met: met.filter(isTold),
      missed,
    };
  });
  return { hits };
}

/** Words found as typed in the name or maker need no telling. */
function isTold({ typed, term, field }: LookupHit['met'][number]): boolean {
  return !(term.startsWith(typed) && (field === 'name' || field === 'maker'));
}

async function firstByName(store: Store) {
  const rows: { id: number }[] = await store('materials')
    .whereNull('archived_at')
    .orderBy(['name', 'id'])
    .limit(MOST_HITS)
    .select('id');
  return rows.map(({ id }) => ({ materialId: id, met: [], missed: [] }));
}

/** Printed or bare is asked only when it changes the answer: other forces kept, or none, so that the stack decides. */
function differsByState({ states }: FoundMaterial): boolean {
  if (states.length > 1 && states.every(({ answers }) => answers.length === 0)) return true;
  const told = states.map(({ answers }) =>
    answers
      .map(({ operation, bladeKind, force }) => `${operation}/${bladeKind}/${force}`)
      .sort()
      .join(),
  );
  return new Set(told).size > 1;
}
