import { z } from 'zod';
import { conditionOfStack } from '#core/stack/material.ts';
import { NO_DETAILS } from '#core/stack/materialDetails.ts';
import {
  addMaterial,
  changeMaterial,
  findMaterial,
  listMaterials,
  setMaterialArchived,
} from '#store/repositories/book/materials.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { materialChangeSchema, materialSchema, newMaterialSchema } from '#web/schemas/station.ts';

const params = z.object({ id: idParam });
/** A change that can be taken back names the entry of the audit trail to do it by. */
export const changedSchema = z.object({ undoId: z.number() });

export const getMaterials = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/materials',
  summary: 'All materials with their conditions and stacks.',
  reply: z.array(materialSchema).readonly(),
  handle: (_, { store }) => listMaterials(store),
});

export const getMaterial = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/materials/{id}',
  summary: 'A material with everything the pack and the shelf say.',
  params,
  reply: materialSchema,
  handle: (input, { store }) => findMaterial(store, input.params.id),
});

export const postMaterial = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/materials',
  summary: 'Adds a material by its stack, from the top layer down.',
  body: newMaterialSchema,
  reply: z.object({ id: z.number(), conditionId: z.number().meta({ description: 'what a station loads' }) }),
  status: 201,
  handle: async ({ body: { stack, ...facts }, author }, { store }) => {
    const conditions = [{ kind: conditionOfStack(stack), stack }];
    const material = { ...facts, cautions: [], details: NO_DETAILS, conditions };
    const id = await addMaterial(store, material, new Date(), author);
    const [condition] = (await findMaterial(store, id)).conditions;
    return { id, conditionId: condition?.id ?? 0 };
  },
});

export const putMaterial = defineEndpoint({
  method: 'PUT',
  role: 'operator',
  path: '/api/materials/{id}',
  summary: 'Changes a material. States keep their settings; a state that is not named stays.',
  params,
  body: materialChangeSchema,
  maxBytes: 256 * 1024,
  reply: changedSchema,
  handle: async (input, { store }) => {
    const { version, ...change } = input.body;
    return {
      undoId: await changeMaterial(store, input.params.id, change, version, input.author, new Date()),
    };
  },
});

export const postMaterialArchive = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/materials/{id}/archive',
  summary: 'Puts a material away, or takes it back out.',
  params,
  body: z.object({ isArchived: z.boolean() }),
  reply: changedSchema,
  handle: async ({ params: { id }, body, author }, { store }) => ({
    undoId: await setMaterialArchived(store, id, body.isArchived, author, new Date()),
  }),
});
