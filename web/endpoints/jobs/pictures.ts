import { z } from 'zod';
import { MOST_PICTURE_BYTES, openPicture } from '#web/endpoints/jobs/openPicture.ts';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';
import { openedPictureSchema } from '#web/schemas/job.ts';

export const postPicture = defineEndpoint({
  method: 'POST',
  path: '/api/pictures',
  change: 'harmless',
  summary:
    'Opens a picture (PNG, JPEG, WebP, TIFF) for tracing: upright, 8 bits a channel, at most 20 megapixels. Nothing is kept.',
  body: z.object({ image: z.base64().min(1).meta({ description: 'the file' }) }),
  // Four letters carry three bytes.
  maxBytes: Math.ceil(MOST_PICTURE_BYTES * 1.4),
  reply: openedPictureSchema,
  handle: ({ body }) => openPicture(Buffer.from(body.image, 'base64')),
});
