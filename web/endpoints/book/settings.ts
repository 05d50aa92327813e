import { z } from 'zod';
import { settleValues } from '#core/setting/settleValues.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { searchMaterials } from '#store/repositories/book/lookup.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import { countSettings, pageSettings } from '#store/repositories/book/settingPages.ts';
import { findSetting, listRevisions, requireSetting } from '#store/repositories/book/settings.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { summariseSettings } from '#web/pageData/summariseSettings.ts';
import {
  bookPageSchema,
  bookQuerySchema,
  newRevisionSchema,
  revisionSchema,
  settingSummarySchema,
  type BookPage,
} from '#web/schemas/setting.ts';

const MOST_FOUND = 40;

export const getSettings = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/settings',
  summary: 'One page of the book: settings at their newest revision, by material, narrowed as asked.',
  query: bookQuerySchema,
  reply: bookPageSchema,
  handle: ({ query }, { store }) => readBookPage(store, query),
});

/** What every word names: who narrows a list wants no more of it than that. */
async function findNamed(store: Store, text: string) {
  const hits = await searchMaterials(store, text, MOST_FOUND);
  return hits.filter(({ missed }) => missed.length === 0);
}

/** One page of the book, whole materials at a time; with a text the materials it names, best first. */
export async function readBookPage(store: Store, query: z.infer<typeof bookQuerySchema>): Promise<BookPage> {
  const { text, after, ...filter } = query;
  const hits = text ? await findNamed(store, text) : null;
  const materialIds = hits ? hits.map(({ materialId }) => materialId) : null;
  const page = await pageSettings(store, { ...filter, materialIds }, after ?? null);
  const summaries = await summariseSettings(store, page.settings);
  const order = new Map(page.materialIds.map((id, index) => [id, index]));
  const placeOf = (materialId: number) => order.get(materialId) ?? order.size;
  return {
    settings: [...summaries].sort((a, b) => placeOf(a.materialId) - placeOf(b.materialId) || a.id - b.id),
    next: hits ? null : page.next,
    total: await countSettings(store),
  };
}

export const getSetting = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/settings/{id}',
  summary: 'A setting with all its revisions, newest first.',
  params: z.object({ id: idParam }),
  reply: settingSummarySchema.extend({ revisions: z.array(revisionSchema).readonly() }),
  handle: async ({ params }, { store }) => readSetting(store, params.id),
});

/** A setting with the words to show it and all its revisions. @throws AppError `notFound` */
export async function readSetting(store: Store, id: number) {
  const setting = await requireSetting(store, id);
  const [summary] = await summariseSettings(store, [setting]);
  if (!summary) throw new Error(`setting ${id} has no material or machine`);
  return { ...summary, revisions: await listRevisions(store, id) };
}

export const postSetting = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/settings',
  summary:
    'Keeps a new revision of any setting. Values are snapped to the machine; what it cannot do is refused.',
  body: newRevisionSchema,
  reply: settingSummarySchema,
  status: 201,
  handle: async ({ body, author }, { store }) => {
    const { values, sources, reason, basedOn, ...key } = body;
    const machine = await findMachine(store, key.machineId);
    const kiss = await findSetting(store, { ...key, operation: 'kiss' });
    const settled = settleValues(values, key.operation, machine, kiss?.revision.values.force ?? null);
    const revision = { values: settled, sources: { force: 'person' as const, ...sources }, reason, author };
    await keepRevision(store, key, revision, basedOn, new Date());
    const kept = await findSetting(store, key);
    const [summary] = kept ? await summariseSettings(store, [kept]) : [];
    if (!summary) throw new Error('a kept setting was not found again');
    return summary;
  },
});
