import { z } from 'zod';
import { addRunPhoto, findRunPhoto, listRunPhotos } from '#store/repositories/runs/runPhotos.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { encodePhoto, MOST_PHOTO_BYTES } from '#web/endpoints/runs/encodePhoto.ts';

const params = z.object({ id: idParam });
const photos = z.array(z.object({ id: z.number(), widthPx: z.number(), heightPx: z.number() })).readonly();

export const getRunPhotos = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/runs/{id}/photos',
  summary: 'The photos of a run.',
  params,
  reply: photos,
  handle: ({ params: { id } }, { store }) => listRunPhotos(store, id),
});

export const postRunPhoto = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/runs/{id}/photos',
  summary: 'Keeps a photo of a run: encoded anew, at most 1600 px, without place, time or camera.',
  params,
  body: z.object({ image: z.base64().min(1).meta({ description: 'JPEG, PNG or WebP' }) }),
  // Four letters carry three bytes.
  maxBytes: Math.ceil(MOST_PHOTO_BYTES * 1.4),
  reply: photos,
  status: 201,
  handle: async ({ params: { id }, body, author }, { store }) => {
    await findRun(store, id);
    const photo = await encodePhoto(Buffer.from(body.image, 'base64'));
    await addRunPhoto(store, id, photo, author, new Date());
    return listRunPhotos(store, id);
  },
});

export const getRunPhoto = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/runs/{id}/photos/{photoId}',
  summary: 'A photo of a run as JPEG.',
  params: z.object({ id: idParam, photoId: idParam }),
  reply: z.string().meta({ description: 'image/jpeg' }),
  handle: async ({ params: { id, photoId } }, { store }) =>
    new Response(new Uint8Array(await findRunPhoto(store, id, photoId)), {
      headers: {
        'content-type': 'image/jpeg',
        'cache-control': 'private, max-age=31536000, immutable',
        'x-content-type-options': 'nosniff',
      },
    }),
});
