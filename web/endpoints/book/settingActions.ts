import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { transferValues } from '#core/setting/transferValues.ts';
import { settleValues } from '#core/setting/settleValues.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { keepRevision, setSettingArchived, setSettingLocked } from '#store/repositories/book/keepSettings.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import {
  findSetting,
  listRevisions,
  requireSetting,
  type KeptSetting,
} from '#store/repositories/book/settings.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { readSetting } from '#web/endpoints/book/settings.ts';
import { bulkReplySchema, bulkSchema, settingSummarySchema } from '#web/schemas/setting.ts';

const params = z.object({ id: idParam });
const reason = z.string().trim().max(300).default('');

export const postLock = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/settings/{id}/lock',
  summary: 'Locks a setting against new revisions, or opens it again.',
  params,
  body: z.object({ isLocked: z.boolean() }),
  reply: settingSummarySchema,
  handle: async ({ params: { id }, body, author }, { store }) => {
    await setSettingLocked(store, id, body.isLocked, author, new Date());
    return readSetting(store, id);
  },
});

export const postArchive = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/settings/{id}/archive',
  summary: 'Puts a setting away, or takes it back out. It is never deleted: the log refers to it.',
  params,
  body: z.object({ isArchived: z.boolean() }),
  reply: settingSummarySchema,
  handle: async ({ params: { id }, body, author }, { store }) => {
    await setSettingArchived(store, id, body.isArchived, author, new Date());
    return readSetting(store, id);
  },
});

export const postRestore = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/settings/{id}/restore',
  summary: 'Keeps the values of an earlier revision again, as a new one.',
  params,
  body: z.object({ revision: z.number().int().positive(), basedOn: z.number().int().positive() }),
  reply: settingSummarySchema,
  handle: async ({ params: { id }, body, author }, { store }) => {
    const { key } = await requireSetting(store, id);
    const old = (await listRevisions(store, id)).find(({ revision }) => revision === body.revision);
    if (!old) throw new AppError('notFound', `this setting has no revision ${body.revision}`);
    const kiss = await findSetting(store, { ...key, operation: 'kiss' });
    const machine = await findMachine(store, key.machineId);
    const values = settleValues(old.values, key.operation, machine, kiss?.revision.values.force ?? null);
    const { sources, lot } = old;
    const revision = { values, sources, lot, author, reason: `revision ${old.revision} restored` };
    await keepRevision(store, key, revision, body.basedOn, new Date());
    return readSetting(store, id);
  },
});

export const postCopy = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/settings/{id}/copy',
  summary:
    'Copies a setting to another machine, its force through grams. It stays a prediction until it was cut there.',
  params,
  body: z.object({
    machineId: z.number().int().positive(),
    bladeKind: z.string().trim().min(1).max(40).optional(),
    reason,
  }),
  reply: settingSummarySchema,
  status: 201,
  handle: async ({ params: { id }, body, author }, { store }) => {
    const from = await requireSetting(store, id);
    const key = { ...from.key, machineId: body.machineId, bladeKind: body.bladeKind ?? from.key.bladeKind };
    const [source, target, kiss, there] = await Promise.all([
      findMachine(store, from.key.machineId),
      findMachine(store, body.machineId),
      findSetting(store, { ...key, operation: 'kiss' }),
      findSetting(store, key),
    ]);
    const transfer = transferValues(from.revision.values, source, target);
    const values = settleValues(transfer.values, key.operation, target, kiss?.revision.values.force ?? null);
    const words = `copied from ${source.name}${transfer.isCalibrated ? '' : ', scales not measured'}`;
    const sources = {
      ...from.revision.sources,
      force: 'copied',
      exposureMm: 'copied',
      speed: 'copied',
    } as const;
    const revision = { values, sources, author, reason: body.reason ? `${words}: ${body.reason}` : words };
    await keepRevision(store, key, revision, there?.revision.revision ?? 0, new Date());
    const kept = await findSetting(store, key);
    return readSetting(store, kept?.id ?? id);
  },
});

export const postBulk = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/settings/bulk',
  summary:
    'One change of many settings. Each that cannot be changed is named with its reason; the others are changed.',
  body: bulkSchema,
  reply: bulkReplySchema,
  handle: async ({ body, author }, { store }) => {
    const done: number[] = [];
    const refused: { id: number; reason: string }[] = [];
    for (const id of body.ids) {
      try {
        await changeOne(store, await requireSetting(store, id), body, author);
        done.push(id);
      } catch (error) {
        if (!(error instanceof AppError)) throw error;
        refused.push({ id, reason: error.message });
      }
    }
    return { done, refused };
  },
});

async function changeOne(
  store: Store,
  setting: KeptSetting,
  change: z.infer<typeof bulkSchema>,
  author: string,
): Promise<void> {
  const now = new Date();
  const { id, key, revision } = setting;
  switch (change.action) {
    case 'lock':
    case 'unlock':
      return setSettingLocked(store, id, change.action === 'lock', author, now);
    case 'archive':
    case 'restore':
      return setSettingArchived(store, id, change.action === 'archive', author, now);
    case 'set': {
      const machine = await findMachine(store, key.machineId);
      const wanted = { ...revision.values, [change.field]: change.value };
      const values = settleValues(wanted, key.operation, machine, revision.values.tabForce ?? null);
      const sources = { ...revision.sources, [change.field]: 'person' as const };
      const { lot } = revision;
      const next = {
        values,
        sources,
        lot,
        author,
        reason: change.reason || `${change.field} set for several at once`,
      };
      await keepRevision(store, key, next, revision.revision, now);
    }
  }
}
