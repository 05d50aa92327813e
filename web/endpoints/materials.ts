import { z } from 'zod';
import { conditionOfStack } from '#core/stack/material.ts';
import { addMaterial, listMaterials } from '#store/repositories/materials.ts';
import { defineEndpoint } from '#web/endpoints/defineEndpoint.ts';
import { materialSchema, newMaterialSchema } from '#web/schemas/station.ts';

export const getMaterials = defineEndpoint({
  method: 'GET',
  path: '/api/materials',
  summary: 'All materials with their conditions and stacks.',
  reply: z.array(materialSchema).readonly(),
  handle: (_, { store }) => listMaterials(store),
});

export const postMaterial = defineEndpoint({
  method: 'POST',
  path: '/api/materials',
  summary: 'Adds a material by its stack, from the top layer down.',
  body: newMaterialSchema,
  reply: z.object({ id: z.number() }),
  status: 201,
  handle: async ({ body: { stack, ...facts } }, { store }) => {
    const conditions = [{ kind: conditionOfStack(stack), stack }];
    return { id: await addMaterial(store, { ...facts, cautions: [], conditions }, new Date()) };
  },
});
