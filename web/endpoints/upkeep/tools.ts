import { z } from 'zod';
import { TACK_FEELS } from '#core/wear/tackIndex.ts';
import {
  addBlade,
  addMat,
  BLADE_CARE,
  careForBlade,
  careForMat,
  changeBlade,
  changeMat,
  listBlades,
  listMats,
  MAT_CARE,
  testTack,
} from '#store/repositories/bench/tools.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import {
  bladeChangeSchema,
  bladeSchema,
  matChangeSchema,
  matSchema,
  newBladeSchema,
  newMatSchema,
} from '#web/schemas/station.ts';

const params = z.object({ id: idParam });
const added = z.object({ id: z.number() });
const done = z.object({ isDone: z.literal(true) });
const DONE = { isDone: true } as const;

export const getUpkeep = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/upkeep',
  summary: 'All blades and mats with their wear.',
  reply: z.object({ blades: z.array(bladeSchema).readonly(), mats: z.array(matSchema).readonly() }),
  handle: async (_, { store }) => ({ blades: await listBlades(store), mats: await listMats(store) }),
});

export const postBlade = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/blades',
  summary: 'Adds a numbered blade.',
  body: newBladeSchema,
  reply: added,
  status: 201,
  handle: async ({ body, author }, { store }) => ({ id: await addBlade(store, body, author, new Date()) }),
});

export const patchBlade = defineEndpoint({
  method: 'PATCH',
  role: 'operator',
  path: '/api/blades/{id}',
  summary: 'Corrects what is known of a blade.',
  params,
  body: bladeChangeSchema,
  reply: done,
  handle: async ({ params: { id }, body, author }, { store }) => {
    await changeBlade(store, id, defined(body), author, new Date());
    return DONE;
  },
});

export const postBladeCare = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/blades/{id}/care',
  summary: 'Notes that a blade was cleaned, retired or brought back.',
  params,
  body: z.object({ care: z.enum(BLADE_CARE) }),
  reply: done,
  handle: async ({ params: { id }, body, author }, { store }) => {
    await careForBlade(store, id, body.care, author, new Date());
    return DONE;
  },
});

export const postMat = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/mats',
  summary: 'Adds a numbered mat.',
  body: newMatSchema,
  reply: added,
  status: 201,
  handle: async ({ body, author }, { store }) => ({ id: await addMat(store, body, author, new Date()) }),
});

export const patchMat = defineEndpoint({
  method: 'PATCH',
  role: 'operator',
  path: '/api/mats/{id}',
  summary: 'Corrects what is known of a mat.',
  params,
  body: matChangeSchema,
  reply: done,
  handle: async ({ params: { id }, body, author }, { store }) => {
    await changeMat(store, id, defined(body), author, new Date());
    return DONE;
  },
});

export const postMatCare = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/mats/{id}/care',
  summary: 'Notes that a mat was washed, re-stuck, retired or brought back.',
  params,
  body: z.object({ care: z.enum(MAT_CARE) }),
  reply: done,
  handle: async ({ params: { id }, body, author }, { store }) => {
    await careForMat(store, id, body.care, author, new Date());
    return DONE;
  },
});

export const postMatFeel = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/mats/{id}/tack',
  summary: 'Notes how its tack felt under a hand: it counts from then on, until the mat is re-stuck.',
  params,
  body: z.object({
    feel: z.enum(TACK_FEELS).meta({
      description:
        'how the cover sheet, or a card pressed on, comes off: in jerks, steady, light, or it falls',
    }),
  }),
  reply: done,
  handle: async ({ params: { id }, body, author }, { store }) => {
    await testTack(store, id, body.feel, author, new Date());
    return DONE;
  },
});

/** Without the fields nobody named, which would overwrite what is known. */
function defined<Change extends object>(
  change: Change,
): { [Field in keyof Change]: Exclude<Change[Field], undefined> } {
  const named = Object.entries(change).filter(([, value]) => value !== undefined);
  return Object.fromEntries(named) as { [Field in keyof Change]: Exclude<Change[Field], undefined> };
}
