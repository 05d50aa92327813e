import { z } from 'zod';
import { AUDIT_ENTITIES, findAudit, listAudit } from '#store/repositories/log/audit.ts';
import { undoChange } from '#store/repositories/log/undoChange.ts';
import { defineEndpoint, idParam, requireRole } from '#web/http/defineEndpoint.ts';
import { auditEntrySchema } from '#web/schemas/setting.ts';

const MOST = 200;

export const getAudit = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/audit',
  summary: 'Who changed what, newest first; of one thing when it is named.',
  query: z
    .object({
      entity: z.enum(AUDIT_ENTITIES).optional(),
      entityId: z.coerce.number().int().positive().optional(),
    })
    .refine(
      ({ entity, entityId }) => (entity === undefined) === (entityId === undefined),
      'name both or none',
    ),
  reply: z.array(auditEntrySchema).readonly(),
  handle: ({ query: { entity, entityId } }, { store }) =>
    listAudit(store, entity && entityId ? { entity, entityId } : null, MOST),
});

export const postUndo = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/audit/{id}/undo',
  summary: 'Takes a change back, unless it was changed again since.',
  params: z.object({ id: idParam }),
  reply: z.object({ isUndone: z.literal(true) }),
  handle: async ({ params, author, who }, { store }) => {
    const { entity } = await findAudit(store, params.id);
    // Taking a change back takes as much as making it.
    if (entity === 'machine') requireRole(who, 'owner');
    await undoChange(store, params.id, author, new Date());
    return { isUndone: true as const };
  },
});
