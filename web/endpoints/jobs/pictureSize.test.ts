import sharp from 'sharp';
import { expect, it } from 'vitest';
import { pictureSize } from '#core/drawing/pictureSize.ts';

/** The size of pictures by their heads, beside what another library wrote. */
const draw = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#345678' } });

it.each([
  [1, 1],
  [640, 427],
  [3000, 12],
])(
  'of %i by %i pixels is read from PNG and from JPEG, progressive and with what a camera adds',
  async (w, h) => {
    const size = { widthPx: w, heightPx: h };
    expect(pictureSize(await draw(w, h).png().toBuffer())).toEqual(size);
    expect(pictureSize(await draw(w, h).jpeg().toBuffer())).toEqual(size);
    const camera = await draw(w, h).jpeg({ progressive: true }).withMetadata({ density: 300 }).toBuffer();
    expect(pictureSize(camera)).toEqual(size);
  },
);

it('is not known of what is no picture', () => {
  expect(pictureSize(Buffer.alloc(40))).toBeNull();
  expect(pictureSize(Buffer.alloc(0))).toBeNull();
});
