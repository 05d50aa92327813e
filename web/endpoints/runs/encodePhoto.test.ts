import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { encodePhoto } from '#web/endpoints/runs/encodePhoto.ts';

const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#8ea6b4' } });

describe('encodePhoto', () => {
  it('takes place, time and camera out, turns it upright and makes it small', async () => {
    const taken = await picture(3000, 2000)
      .withExif({
        IFD0: { Make: 'A camera', DateTime: '2026:03:01 10:00:00' },
        IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '54/1 47/1 0/1' },
      })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect((await sharp(taken).metadata()).exif).toBeDefined();
    const { image, widthPx, heightPx } = await encodePhoto(taken);
    const kept = await sharp(image).metadata();
    expect(kept.exif).toBeUndefined();
    expect(kept.orientation).toBeUndefined();
    expect(kept.format).toBe('jpeg');
    // Orientation 6 is a quarter turn: 3000 × 2000 stands upright.
    expect([widthPx, heightPx]).toEqual([1067, 1600]);
  });

  it('leaves small pictures their size, and takes PNG', async () => {
    const { widthPx, heightPx } = await encodePhoto(await picture(120, 80).png().toBuffer());
    expect([widthPx, heightPx]).toEqual([120, 80]);
  });

  it.each([
    ['text', Buffer.from('no picture at all')],
    ['a drawing', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>')],
    ['half a file', Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 1])],
    ['nothing', Buffer.alloc(0)],
  ])('refuses %s', async (_, bytes) => {
    await expect(encodePhoto(bytes)).rejects.toMatchObject({ code: 'badInput' });
  });
});
