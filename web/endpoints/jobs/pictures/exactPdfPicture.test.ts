import { inflateSync } from 'node:zlib';
import sharp from 'sharp';
import { expect, it } from 'vitest';
import { startPdf } from '#web/endpoints/jobs/pdfPage.ts';
import { openExactPicture } from '#web/endpoints/jobs/pictures/exactPdfPicture.ts';

const [WIDE, TALL] = [24, 16];
/** Every pixel another colour; the left half clear by a third. */
const rgba = Buffer.from(
  Array.from({ length: WIDE * TALL }, (_, at) => [
    (at * 7) % 256,
    (at * 13) % 256,
    (at * 29) % 256,
    at % WIDE < WIDE / 2 ? 170 : 255,
  ]).flat(),
);
const picture = (hasAlpha: boolean) => {
  const drawn = sharp(rgba, { raw: { width: WIDE, height: TALL, channels: 4 } });
  return hasAlpha ? drawn : drawn.removeAlpha();
};
/** Numbers as they are, with a profile that says what they mean. */
async function tagged(hasAlpha: boolean, kind: 'png' | 'jpeg' = 'png') {
  const profile = (
    await sharp({ create: { width: 1, height: 1, channels: 3, background: '#000' } })
      .withIccProfile('p3')
      .png()
      .toBuffer()
      .then((bytes) => sharp(bytes).metadata())
  ).icc as Buffer;
  return { data: await picture(hasAlpha).toFormat(kind).toBuffer(), profile };
}

async function print(exact: Parameters<typeof openExactPicture>[1]) {
  const { page, finish } = startPdf('one picture', [100, 100]);
  page.image(await openExactPicture(page, exact), 0, 0, { width: 50 });
  return finish();
}

/** The streams of a PDF with what stands before each. */
function listStreams(pdf: Buffer) {
  const text = pdf.toString('latin1');
  return [...text.matchAll(/(\d+) 0 obj\n(<<(?:(?!endobj)[\s\S])*?>>)\nstream\n/g)].map((found) => {
    const from = found.index + found[0].length;
    const length = Number(/\/Length (\d+)/.exec(found[2] as string)?.[1]);
    return { number: Number(found[1]), head: found[2] as string, data: pdf.subarray(from, from + length) };
  });
}

/** Undoes the filters of PNG lines. Source: W3C, Portable Network Graphics (third edition), 9.2. */
function unfilter(data: Buffer, colours: number): number[] {
  const wide = WIDE * colours;
  const lines: number[][] = [];
  for (let row = 0; row < TALL; row++) {
    const filter = data[row * (wide + 1)];
    const above = lines[row - 1] ?? Array.from({ length: wide }, () => 0);
    const line: number[] = [];
    for (let at = 0; at < wide; at++) {
      const [left, up, corner] = [line[at - colours] ?? 0, above[at] ?? 0, above[at - colours] ?? 0];
      const paeth = [left, up, corner].reduce((best, one) =>
        Math.abs(left + up - corner - one) < Math.abs(left + up - corner - best) ? one : best,
      );
      const guess = [0, left, up, (left + up) >> 1, paeth][filter ?? 0] ?? 0;
      line.push(((data[row * (wide + 1) + 1 + at] ?? 0) + guess) & 255);
    }
    lines.push(line);
  }
  return lines.flat();
}

it.each([true, false])(
  'holds the very numbers of a PNG, what is clear of it apart (alpha %s)',
  async (hasAlpha) => {
    const streams = listStreams(await print(await tagged(hasAlpha)));
    const ink = streams.find(({ head }) => head.includes('/Width 24') && head.includes('ICCBased'))!;
    const wanted = await picture(hasAlpha).removeAlpha().raw().toBuffer();
    expect(unfilter(inflateSync(ink.data), 3)).toEqual([...wanted]);
    const mask = streams.find(({ head }) => head.includes('/Width 24') && head.includes('DeviceGray'));
    expect(Boolean(mask)).toBe(hasAlpha);
    if (mask) expect([...inflateSync(mask.data)]).toEqual([...rgba].filter((_, at) => at % 4 === 3));
  },
);

it('holds a JPEG byte for byte', async () => {
  const exact = await tagged(false, 'jpeg');
  const ink = listStreams(await print(exact)).find(({ head }) => head.includes('DCTDecode'))!;
  expect(ink.data.equals(exact.data)).toBe(true);
  expect(ink.head).toContain('ICCBased');
});

it('keeps the colour profile, once for all pictures that have it', async () => {
  const exact = await tagged(true);
  const { page, finish } = startPdf('two pictures', [100, 100]);
  for (const one of [exact, { ...exact, data: await picture(false).png().toBuffer() }]) {
    page.image(await openExactPicture(page, one), 0, 0, { width: 50 });
  }
  const profiles = listStreams(await finish()).filter(({ head }) => head.includes('/Alternate /DeviceRGB'));
  expect(profiles).toHaveLength(1);
  expect(inflateSync(profiles[0]!.data).equals(exact.profile)).toBe(true);
});

it('leaves out a profile of other inks than the picture has', async () => {
  const exact = await tagged(false);
  const grey = { ...exact, data: await picture(false).toColourspace('b-w').png().toBuffer() };
  expect((await print(grey)).includes('ICCBased')).toBe(false);
});
