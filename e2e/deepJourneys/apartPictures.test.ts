import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { ADDRESS, api } from '#e2e/support/app.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { writePictureSvg } from '#core/artwork/pictureDrawing.ts';
import type { JobReply, OpenedPictureReply } from '#web/schemas/job.ts';

/** Pictures are kept apart from the drawings that name them, and leave the house in them. */
const noise = (seed: number) => {
  const draw = seededRandom(seed);
  const pixels = Buffer.from(Array.from({ length: 300 * 200 * 3 }, () => Math.floor(draw() * 256)));
  return sharp(pixels, { raw: { width: 300, height: 200, channels: 3 } });
};
const line = { closed: '<path d="M1 1H29V19H1Z" fill="none" stroke="#1f766f" stroke-width="0.2"/>' };
/** As a drawing program writes it: the picture within. */
const inline = (bytes: Buffer) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="30mm" height="20mm" viewBox="0 0 30 20"><image href="data:image/png;base64,${bytes.toString('base64')}" width="30" height="20"/>${line.closed}</svg>`;
const source = async (id: number, query = '') =>
  (await fetch(`${ADDRESS}/api/jobs/${id}/source?drawing=0${query}`)).text();
const make = (body: object) => api<{ id: number }>('/api/jobs', 'POST', { machineId: 1, ...body });

describe('a picture', () => {
  it('stays byte for byte where it needs nothing done, and is fetched for good by what it holds', async () => {
    const bytes = await noise(1).withIccProfile('p3').png().toBuffer();
    const ask = () =>
      api<OpenedPictureReply>('/api/pictures', 'POST', { image: bytes.toString('base64'), isKept: true });
    const [{ reply }, again] = await Promise.all([ask(), ask()]);
    expect(again.reply).toEqual(reply);
    expect(reply.address).toMatch(/^picture:[0-9a-f]{64}-300x200\.png$/);
    const whole = await fetch(ADDRESS + reply.image);
    expect(whole.headers.get('cache-control')).toContain('immutable');
    expect(Buffer.from(await whole.arrayBuffer()).equals(bytes)).toBe(true);
    const small = await fetch(`${ADDRESS}${reply.image}?size=small`);
    const { width, icc } = await sharp(Buffer.from(await small.arrayBuffer())).metadata();
    expect([width, icc]).toEqual([300, undefined]);
    expect((await fetch(`${ADDRESS}/api/pictures/picture`)).status).toBe(404);
  });

  it('named by a drawing is printed with its colour profile, and goes along where the job goes', async () => {
    const bytes = await noise(2).withIccProfile('p3').png().toBuffer();
    const { reply: opened } = await api<OpenedPictureReply>('/api/pictures', 'POST', {
      image: bytes.toString('base64'),
      isKept: true,
    });
    const svg = writePictureSvg({ image: opened.address!, widthMm: 30, heightMm: 20, contours: [] });
    // With something painted over it, so that the file is drawn in layers.
    const shine =
      '<radialGradient id="g"><stop stop-color="#fff"/><stop offset="1" stop-color="#fa0"/></radialGradient><circle cx="8" cy="6" r="3" fill="url(#g)"/>';
    const { reply, status } = await make({
      name: 'apart',
      source: svg.replace('</svg>', `${shine}${line.closed}</svg>`),
    });
    expect(status).toBe(201);
    expect((await source(reply.id, '&pictures=apart')).length).toBeLessThan(2000);
    expect(await source(reply.id)).toContain(bytes.toString('base64'));
    const pdf = Buffer.from(await (await fetch(`${ADDRESS}/api/jobs/${reply.id}/print-sheet`)).arrayBuffer());
    expect([pdf.includes('ICCBased'), pdf.includes('/Width 300')]).toEqual([true, true]);
    const file = await (await fetch(`${ADDRESS}/api/jobs/${reply.id}/file`)).json();
    expect(JSON.stringify(file)).toContain(bytes.toString('base64'));
    const back = await api<{ id: number }>('/api/jobs/file', 'POST', file);
    expect((await source(back.reply.id, '&pictures=apart')).length).toBeLessThan(2000);
    expect(await source(back.reply.id)).toBe(await source(reply.id));
  });

  it('within a file is kept apart, and the file comes back as it was', async () => {
    const svg = inline(await noise(3).png().toBuffer());
    const { reply } = await make({ name: 'within', source: svg });
    expect((await source(reply.id, '&pictures=apart')).length).toBeLessThan(1000);
    expect(await source(reply.id)).toBe(svg);
    // Cut around, drawn small and looked at as before.
    const edge = await api<{ edge: { inkedShare: number } }>(`/api/jobs/${reply.id}/edge`);
    expect(edge.reply.edge.inkedShare).toBe(1);
    const picture = await fetch(`${ADDRESS}/api/jobs/${reply.id}/picture?drawing=0`);
    const { channels } = await sharp(Buffer.from(await picture.arrayBuffer())).stats();
    expect(Math.max(...channels.slice(0, 3).map(({ stdev }) => stdev))).toBeGreaterThan(3);
  });

  it('alone in a drawing is cut around, also when it is kept apart', async () => {
    const disc = await sharp(
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"><circle cx="150" cy="100" r="90"/></svg>',
      ),
    )
      .composite([{ input: await noise(4).png().toBuffer(), blend: 'in' }])
      .png()
      .toBuffer();
    const painted =
      '<defs><linearGradient id="g"><stop stop-color="#c33"/><stop offset="1" stop-color="#33c"/></linearGradient></defs>' +
      '<circle cx="15" cy="10" r="3" fill="url(#g)"/><circle cx="14" cy="9" r="1" fill="#ffee00"/>';
    const svg = inline(disc).replace(line.closed, painted);
    const { reply } = await make({ name: 'alone', source: svg });
    const job = (await api<JobReply>(`/api/jobs/${reply.id}`)).reply;
    expect(job.edits.map(({ kind }) => kind)).toContain('offset');
    const cut = await (await fetch(`${ADDRESS}/api/jobs/${reply.id}/layers?format=svg`)).text();
    const xs = [...cut.matchAll(/[ML](-?[\d.]+) /g)].map(([, x]) => Number(x));
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(18, 0);
  });

  it('that is not kept here is asked for again, in words', async () => {
    const svg = writePictureSvg({
      image: `picture:${'0'.repeat(64)}-300x200.png`,
      widthMm: 30,
      heightMm: 20,
      contours: [],
    });
    const { status, reply } = await make({
      name: 'foreign',
      source: svg.replace('</svg>', `${line.closed}</svg>`),
    });
    expect(status).toBe(400);
    expect(JSON.stringify(reply)).toMatch(/bring its file again/);
  });
});
