import { z } from 'zod';
import { itemAt } from '#core/collections/itemAt.ts';
import { kindOfPicture } from '#core/drawing/keptPicture.ts';
import { findPictures, findSmallPictures } from '#store/repositories/jobs/pictures.ts';
import { dataAddressOf } from '#web/endpoints/jobs/pictures/inlinePictures.ts';
import { keepBytes } from '#web/endpoints/jobs/pictures/keepPictures.ts';
import { MOST_PICTURE_BYTES, openPicture } from '#web/endpoints/jobs/pictures/openPicture.ts';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';
import { openedPictureSchema } from '#web/schemas/job.ts';
import { pictureAddress, picturePath } from '#web/schemas/picturePath.ts';

export const postPicture = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/pictures',
  change: 'harmless',
  summary:
    'Opens a picture (PNG, JPEG, WebP, TIFF) for tracing: upright, 8 bits a channel, at most 20 megapixels. With `isKept` it stays for a day, or for as long as a drawing names it by its address.',
  body: z.object({
    image: z.base64().min(1).meta({ description: 'the file' }),
    isKept: z.boolean().default(false),
  }),
  // Four letters carry three bytes.
  maxBytes: Math.ceil(MOST_PICTURE_BYTES * 1.4),
  reply: openedPictureSchema,
  handle: async ({ body }, { store }) => {
    const { data, kind, ...opened } = await openPicture(Buffer.from(body.image, 'base64'));
    if (!body.isKept) return { ...opened, image: dataAddressOf(data) };
    const address = await keepBytes(store, { ...opened, data, kind });
    return { ...opened, image: picturePath(address), address };
  },
});

export const getPicture = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/pictures/{name}',
  summary: 'A kept picture, as PNG or JPEG: as it was brought, or small, for a list or a sheet.',
  params: z.object({ name: z.string().max(110) }),
  query: z.object({ size: z.enum(['whole', 'small']).default('whole') }),
  reply: z.string().meta({ description: 'image/png or image/jpeg' }),
  handle: async ({ params, query }, { store }) => {
    const address = pictureAddress(params.name);
    const bytes =
      query.size === 'small'
        ? (await findSmallPictures(store, [address])).get(address)
        : (await findPictures(store, [address])).get(address)?.data;
    const data = itemAt([bytes], 0) as Uint8Array<ArrayBuffer>;
    // What it is called says what it holds: it never becomes another.
    const headers = {
      'content-type': `image/${kindOfPicture(data)}`,
      'cache-control': 'private, max-age=31536000, immutable',
    };
    return new Response(data, { headers });
  },
});
