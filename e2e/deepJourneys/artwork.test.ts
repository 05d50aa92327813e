import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ADDRESS, api, arrive, go } from '#e2e/support/app.ts';
import { conditionOf, drawAs, type Drawer } from '#e2e/support/drawer.ts';
import type { JobReply } from '#web/schemas/job.ts';

/** What people bring, opened by a stranger who reads nothing: art as it looks, one outline, the right size. */
let drawer: Drawer;
beforeAll(async () => {
  drawer = await drawAs('Nele', 1);
  await api('/api/stations/1', 'PATCH', {
    conditionId: await conditionOf('Herringglass matt white', 'laminated'),
  });
});
afterAll(() => drawer.leave());

const clipArt = `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40">
  <linearGradient id="sky"><stop offset="0" stop-color="#e3b23c"/><stop offset="1" stop-color="#3b5a8b"/></linearGradient>
  <clipPath id="hull"><ellipse cx="30" cy="20" rx="25" ry="15"/></clipPath>
  <rect width="60" height="40" fill="none"/>
  <g clip-path="url(#hull)"><rect width="60" height="40" fill="url(#sky)"/><path d="M0 30H60V40H0Z" fill="#2c6e7f" opacity=".8"/></g>
  <path d="M20 25Q30 30 40 25" fill="none" stroke="#222" stroke-width="1.5" stroke-linecap="round"/></svg>`;

/** A carrier of 4 by 6 inches with two round stickers, drawn in inches by a program that names no unit. */
const carrier = [
  [
    '0',
    'SECTION',
    '2',
    'HEADER',
    '9',
    '$MEASUREMENT',
    '70',
    '0',
    '0',
    'ENDSEC',
    '0',
    'SECTION',
    '2',
    'ENTITIES',
  ],
  [
    '0',
    'LWPOLYLINE',
    '8',
    'outline',
    '70',
    '1',
    '10',
    '0',
    '20',
    '0',
    '10',
    '4',
    '20',
    '0',
    '10',
    '4',
    '20',
    '6',
    '10',
    '0',
    '20',
    '6',
  ],
  ['0', 'CIRCLE', '8', 'stickers', '10', '2', '20', '1.5', '40', '1'],
  ['0', 'CIRCLE', '8', 'stickers', '10', '2', '20', '4.5', '40', '1'],
  ['0', 'LINE', '8', 'DEFPOINTS', '10', '0', '20', '0', '11', '90', '21', '0'],
  ['0', 'ENDSEC', '0', 'EOF'],
]
  .flat()
  .join('\n');

const rolesOf = async (id: number) => Object.entries((await api<JobReply>(`/api/jobs/${id}`)).reply.roles);

describe('a clip art with gradients, clips and opacity', () => {
  it('is art but for one outline around what shows of it, and is printed from its file', async () => {
    const id = await drawer.open('harbour.svg', clipArt);
    const roles = await rolesOf(id);
    expect(roles.filter(([, role]) => role !== 'art')).toEqual([['outline|#1e2a32', 'kiss']]);
    const svg = await (await fetch(`${ADDRESS}/api/jobs/${id}/layers?format=svg`)).text();
    const xs = [...svg.matchAll(/<g id="kiss"[\s\S]*?<\/g>/g)].flatMap(([group]) =>
      [...group.matchAll(/[ML](-?[\d.]+) /g)].map(([, x]) => Number(x)),
    );
    // The ellipse that clips it, not the frame of the drawing.
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(50, 0);
    await drawer.step('Sheet');
    await expect.poll(() => drawer.visitor.page.locator('svg image[href^="blob:"]').count()).toBe(1);
    const pdf = await drawer.fetchFile(`/api/jobs/${id}/print-sheet?sheet=1`, 'harbour.pdf');
    expect(readFileSync(pdf).includes('/Subtype /Image')).toBe(true);
  });

  it('keeps its outline when a border is added around it', async () => {
    const { page } = drawer.visitor;
    await drawer.step('Drawing');
    await page.getByRole('button', { name: 'Add border' }).click();
    await page.getByText('2 mends made').waitFor();
  });
});

describe('a DXF in inches that names no unit', () => {
  it('is as large as it was meant, and says what it left out', async () => {
    const { page } = drawer.visitor;
    const id = await drawer.open('carrier.dxf', carrier);
    expect((await rolesOf(id)).map(([key, role]) => [key.split('|')[0], role])).toEqual([
      ['outline', 'perforated'],
      ['stickers', 'kiss'],
    ]);
    await drawer.step('Drawing');
    await expect.poll(() => page.getByLabel('Width, mm').inputValue()).toBe('101.6');
    await page.getByText(/lines on DEFPOINTS, which is never drawn/).waitFor();
  });
});

describe('a typed word', () => {
  it('in a script, with the border that makes it one piece', async () => {
    const { page } = drawer.visitor;
    await go(page, '/jobs');
    await page.getByRole('button', { name: 'Type words' }).click();
    await page.getByRole('textbox', { name: 'Words' }).fill('Low tide');
    await page.getByRole('combobox', { name: 'Font' }).selectOption('script');
    await page.getByRole('button', { name: /^One piece: border of/ }).click();
    await page
      .getByRole('status')
      .filter({ hasText: /, 1 piece$/ })
      .waitFor();
    await page.getByRole('button', { name: 'Make the job' }).click();
    await arrive(page, /^\/jobs\/\d+$/);
    const id = Number(/\d+$/.exec(new URL(page.url()).pathname)![0]);
    expect((await rolesOf(id)).map(([, role]) => role)).toEqual(['art', 'kiss']);
  });

  it('in a font of the workshop, which stays for the next word', async () => {
    const { page } = drawer.visitor;
    await go(page, '/jobs');
    await page.getByRole('button', { name: 'Type words' }).click();
    const files = createRequire(import.meta.url).resolve('@fontsource/fredoka/package.json');
    const file = join(files, '../files/fredoka-latin-300-normal.woff2');
    await page.locator('input[type=file]').setInputFiles({
      name: 'light.woff2',
      mimeType: 'font/woff2',
      buffer: readFileSync(file),
    });
    const font = page.getByRole('combobox', { name: 'Font' });
    await expect
      .poll(() => font.evaluate((select: HTMLSelectElement) => select.selectedOptions[0]?.text))
      .toMatch(/Fredoka/);
    await page.getByRole('textbox', { name: 'Words' }).fill('ebb');
    await page
      .getByRole('status')
      .filter({ hasText: /3 pieces$/ })
      .waitFor();
    await page.locator('input[type=file]').setInputFiles({
      name: 'none.ttf',
      mimeType: 'font/ttf',
      buffer: Buffer.from('no font'),
    });
    await page
      .getByRole('alert')
      .filter({ hasText: /no font that is read/ })
      .waitFor();
  });
});
