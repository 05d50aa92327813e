import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ADDRESS, api, arrive, go, visit, type Visitor } from '#e2e/support/app.ts';
import type { JobReply } from '#web/schemas/job.ts';

/** Pictures as artwork: dropped, cut around, sized, and made a job whose line lies where the picture ends. */
let tove: Visitor;
beforeAll(async () => {
  tove = await visit('Tove', 1);
});
afterAll(() => tove.leave());

const disc = (ground: string) =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="600" height="400">${ground}<circle cx="300" cy="200" r="150" fill="#b33a2b"/><circle cx="300" cy="200" r="60" fill="#ffffff"/></svg>`,
  );

async function drop(name: string, mimeType: string, buffer: Buffer): Promise<void> {
  const { page } = tove;
  await go(page, '/jobs');
  await page.locator('input[type=file]').setInputFiles({ name, mimeType, buffer });
}

async function makeJob(): Promise<number> {
  const { page } = tove;
  await page.getByRole('button', { name: 'Make the job' }).click();
  await arrive(page, /^\/jobs\/\d+$/);
  return Number(/\d+$/.exec(new URL(page.url()).pathname)![0]);
}

/** How wide and high what is cut of a job is, mm. */
async function sizeOfCut(jobId: number): Promise<readonly [number, number]> {
  const svg = await (await fetch(`${ADDRESS}/api/jobs/${jobId}/layers?format=svg`)).text();
  const points = [...svg.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);
  const span = (axis: 0 | 1) => {
    const values = points.map((point) => point[axis] as number);
    return Math.max(...values) - Math.min(...values);
  };
  return [span(0), span(1)];
}

describe('a picture with a clear ground', () => {
  it('is cut around where it is clear, at the size that is asked, and printed whole', async () => {
    const { page } = tove;
    await drop('red ring.png', 'image/png', await sharp(disc('')).png().toBuffer());
    await page.getByText(/^One outline of \d+ points, at most 0\.\d\d mm off/).waitFor();
    expect(await page.getByRole('button', { name: 'clear', exact: true }).getAttribute('aria-pressed')).toBe(
      'true',
    );
    await page.getByLabel('Width, mm').fill('80');
    await page.getByLabel('Width, mm').press('Enter');
    await page.getByText('191 dpi at this size.').waitFor();
    const id = await makeJob();
    const { reply: job } = await api<JobReply>(`/api/jobs/${id}`);
    expect(job.name).toBe('red ring');
    expect(Object.values(job.roles)).toEqual(['kiss']);
    // A disc half as wide as its picture.
    const [wide, high] = await sizeOfCut(id);
    expect(wide).toBeCloseTo(40, 0);
    expect(high).toBeCloseTo(40, 0);
    const print = await fetch(`${ADDRESS}/api/jobs/${id}/print-sheet`);
    expect(print.headers.get('content-type')).toBe('application/pdf');
    expect(tove.errors).toEqual([]);
  });
});

describe('a photo on white', () => {
  it('is cut around what differs from its ground; its hole is cut out when it is asked for', async () => {
    const { page } = tove;
    const white = '<rect width="600" height="400" fill="#fdfdfd"/>';
    await drop('ring.jpg', 'image/jpeg', await sharp(disc(white)).jpeg({ quality: 70 }).toBuffer());
    await page.getByText(/^One outline of/).waitFor();
    await page.getByLabel('Cut its holes out too').check();
    await page.getByText(/^2 outlines of/).waitFor();
    // Whatever is not the ground's colour: tapped on the disc, the rest is the piece.
    await page.getByRole('img', { name: /The picture with/ }).click({ position: { x: 20, y: 20 } });
    await page.getByText(/^2 outlines of/).waitFor();
    const id = await makeJob();
    const { reply: job } = await api<JobReply>(`/api/jobs/${id}`);
    expect(Object.keys(job.roles)).toHaveLength(1);
    const [wide] = await sizeOfCut(id);
    expect(wide).toBeCloseTo(30, 0);
  });

  it('that is broken is refused in words, and another file can be chosen', async () => {
    const { page } = tove;
    const whole = await sharp(disc('')).png().toBuffer();
    await drop('torn.png', 'image/png', whole.subarray(0, 900));
    await page.getByText(/PNG file is broken/).waitFor();
    await page.getByRole('button', { name: 'Choose another file' }).click();
    await page.getByRole('heading', { name: 'New job' }).waitFor();
    expect(tove.errors).toEqual([]);
  });
});

describe('the size of a drawing', () => {
  it('is typed by width or in percent, or taken from the sheet; borders keep their millimetres', async () => {
    const { page } = tove;
    await drop('ring.png', 'image/png', await sharp(disc('')).png().toBuffer());
    await page.getByText(/^One outline of/).waitFor();
    const id = await makeJob();
    const before = await sizeOfCut(id);
    // It lies on a rest of the shelf: there is no room to grow.
    await page.getByRole('tab', { name: /\d Sheet/ }).click();
    await page.getByLabel('Size', { exact: true }).selectOption('A4');
    await expect.poll(async () => (await api<JobReply>(`/api/jobs/${id}`)).reply.sheet.name).toBe('A4');
    await page.getByRole('tab', { name: /\d Drawing/ }).click();
    const field = page.getByRole('region', { name: 'Size' });
    await field.getByLabel('Of its file, %').fill('150');
    await field.getByLabel('Of its file, %').press('Enter');
    await expect.poll(async () => (await sizeOfCut(id))[0]).toBeCloseTo(1.5 * before[0], 1);
    await field.getByRole('button', { name: 'As large as the sheet takes' }).click();
    await expect.poll(async () => (await sizeOfCut(id))[0]).toBeGreaterThan(2.5 * before[0]);
    await page.getByRole('tab', { name: /\d Sheet/ }).click();
    await page
      .getByText(/everything lies inside|lies inside/i)
      .first()
      .waitFor();
    expect(tove.errors).toEqual([]);
  });
});
