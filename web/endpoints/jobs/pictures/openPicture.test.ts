import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { openPicture } from '#web/endpoints/jobs/pictures/openPicture.ts';

const RED = { r: 200, g: 30, b: 30 };
/** A red picture; half of it clear where it has alpha. */
function draw(width: number, height: number, alpha = 1) {
  return sharp({ create: { width, height, channels: 4, background: { ...RED, alpha } } });
}

describe('a picture', () => {
  it.each([
    ['png', {}],
    ['webp', { lossless: true }],
    ['tiff', { compression: 'lzw' }],
  ] as const)('with clear parts is kept clear as PNG (%s)', async (format, options) => {
    const opened = await openPicture(await draw(40, 20, 0).toFormat(format, options).toBuffer());
    expect(opened).toMatchObject({ widthPx: 40, heightPx: 20, hasClear: true, reducedFrom: null });
    expect(opened.kind).toBe('png');
    expect((await sharp(opened.data).metadata()).hasAlpha).toBe(true);
  });

  it('of a camera stands upright, with the resolution that its file says', async () => {
    const photo = await draw(60, 40)
      .flatten()
      .jpeg()
      .withMetadata({ orientation: 6, density: 300 })
      .toBuffer();
    const opened = await openPicture(photo);
    expect(opened).toMatchObject({ widthPx: 40, heightPx: 60, dpi: 300, hasClear: false });
    expect(opened.kind).toBe('jpeg');
    const { width, height, orientation } = await sharp(opened.data).metadata();
    expect([width, height]).toEqual([40, 60]);
    expect(orientation ?? 1).toBe(1);
  });

  it('of 72 dpi says nothing of its size on paper', async () => {
    const plain = await draw(10, 10).png().withMetadata({ density: 72 }).toBuffer();
    expect((await openPicture(plain)).dpi).toBeNull();
  });

  it('in the colours of a press is brought to those of a screen', async () => {
    const press = await draw(12, 12).flatten().toColourspace('cmyk').jpeg().toBuffer();
    const { data } = await openPicture(press);
    expect((await sharp(data).metadata()).space).toBe('srgb');
  });

  it.each(['png', 'jpeg'] as const)('that needs nothing done stays byte for byte (%s)', async (kind) => {
    const own = await draw(30, 20).flatten().withIccProfile('p3').toFormat(kind).toBuffer();
    expect(await openPicture(own)).toMatchObject({ data: own, kind });
  });

  it('that is encoded anew keeps its colour profile, and the very colours in it', async () => {
    const flat = await draw(30, 20).flatten().withIccProfile('p3').png().toBuffer();
    const other = await sharp(flat).keepIccProfile().tiff().toBuffer();
    const { data } = await openPicture(other);
    expect((await sharp(data).metadata()).icc).toEqual((await sharp(flat).metadata()).icc);
    const first = async (bytes: Buffer) =>
      [...(await sharp(bytes, { ignoreIcc: true }).raw().toBuffer()).subarray(0, 3)].join();
    expect(await first(data)).toBe(await first(flat));
  });

  it('of many megapixels is kept with 20 of them, and says so', async () => {
    const large = await draw(5500, 5000).flatten().jpeg().withMetadata({ density: 550 }).toBuffer();
    const opened = await openPicture(large);
    expect(opened.reducedFrom).toBe(27_500_000);
    expect(opened.widthPx * opened.heightPx).toBeLessThanOrEqual(20_000_000);
    // As large on paper as before.
    expect(opened.widthPx / (opened.dpi as number)).toBeCloseTo(10, 1);
  });
});

describe('what is no picture', () => {
  it.each([
    ['text', Buffer.from('hello'), /no picture that can be read/],
    [
      'a drawing',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
      /svg file is no picture/,
    ],
  ])('is refused in words: %s', async (_, bytes, words) => {
    await expect(openPicture(bytes)).rejects.toThrow(words);
  });

  it('broken off in the middle is refused as broken', async () => {
    const random = Buffer.from(Array.from({ length: 3 * 200 * 200 }, (_, at) => (at * 7919) % 251));
    const whole = await sharp(random, { raw: { width: 200, height: 200, channels: 3 } })
      .png()
      .toBuffer();
    await expect(openPicture(whole.subarray(0, whole.length / 2))).rejects.toThrow(/PNG file is broken/);
  });

  it('unpacks to more than 100 megapixels is refused before it does', async () => {
    const bomb = await draw(12_000, 9_000).png({ compressionLevel: 9 }).toBuffer();
    expect(bomb.length).toBeLessThan(5_000_000);
    await expect(openPicture(bomb)).rejects.toThrow(/12000 × 9000 pixels, more than the 100 megapixels/);
  });
});
