import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { api } from '#e2e/support/app.ts';
import { drawHpgl, drawSvg } from '#e2e/support/drawFiles.ts';
import { conditionOf, drawAs, inkBox, type Drawer } from '#e2e/support/drawer.ts';
import type { JobReply } from '#web/schemas/job.ts';
import type { PlanReply } from '#web/schemas/plan.ts';

/**
 * A newcomer takes a drawing from an open icon set to a full sheet of kiss-cut stickers with perforated outlines on the
 * roll-fed machine. What comes out is read by hp2xx, poppler and librsvg.
 */
const icons = join(dirname(createRequire(import.meta.url).resolve('lucide-static/package.json')), 'icons');
const fish = readFileSync(join(icons, 'fish.svg'), 'utf8')
  .replace('width="24"', 'width="40mm"')
  .replace('height="24"', 'height="40mm"');

let drawer: Drawer;
beforeAll(async () => {
  drawer = await drawAs('Mira', 1);
});
afterAll(() => drawer.leave());

describe('from an icon to a sheet of stickers on the roll-fed machine', () => {
  let id = 0;

  it('opens the icon, whose lines are art and cut around; a kissed and a perforated border take its place', async () => {
    const { page } = drawer.visitor;
    await api('/api/stations/1', 'PATCH', {
      conditionId: await conditionOf('Herringglass matt white', 'laminated'),
    });
    id = await drawer.open('fish.svg', fish);
    await page.getByText('These are guesses').waitFor();
    await expect.poll(() => page.getByRole('radio', { name: 'Art', checked: true }).count()).toBe(1);
    await expect.poll(() => page.getByRole('radio', { name: 'Kiss', checked: true }).count()).toBe(1);
    await drawer.step('Drawing');
    await page.getByRole('button', { name: 'Undo: outline added' }).click();
    await drawer.kept(id, 2);
    await page.getByLabel(/New outline/).fill('2');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Add border' }).click();
    await drawer.kept(id, 3);
    await page.getByText('1 mend made').waitFor();
    await page.getByRole('button', { name: 'Add border' }).click();
    await page.getByText('2 mends made').waitFor();
    await drawer.step('Roles');
    await expect.poll(() => page.getByRole('radio', { name: 'Kiss', checked: true }).count()).toBe(1);
    await expect.poll(() => page.getByRole('radio', { name: 'Perforated', checked: true }).count()).toBe(1);
  });

  it('fills the sheet with pieces, clear of marks and of the corner for a test cut', async () => {
    const { page } = drawer.visitor;
    await drawer.step('Sheet');
    await page.getByLabel('Size').selectOption('A4');
    await drawer.kept(id, 5);
    await page.getByLabel(/Registration marks/).check();
    await drawer.kept(id, 6);
    await page.getByLabel(/Keep a corner free/).check();
    await drawer.kept(id, 7);
    await page.getByRole('radio', { name: 'Each piece by itself' }).click();
    await page.getByText('Nothing lies on the sheet yet.').waitFor();
    await page.getByLabel(/Copies/).fill('0');
    await page.keyboard.press('Enter');
    await drawer.kept(id, 9);
    await page.getByRole('button', { name: 'Lay out' }).click();
    await page.getByText(/\d+ pieces on one sheet\./).waitFor({ timeout: 40_000 });
    // The page shows it at once; the server keeps it a moment later.
    const placed = async () => (await api<JobReply>(`/api/jobs/${id}`)).reply.layout.placements.length;
    await expect.poll(placed).toBeGreaterThanOrEqual(12);
  });

  it('plans a kiss and a perforation with tabs, and says how they will hold', async () => {
    const { page } = drawer.visitor;
    await drawer.step('Passes');
    await page.getByRole('heading', { name: 'In this order' }).waitFor();
    const { reply: plan } = await api<PlanReply>(`/api/jobs/${id}/plan`);
    expect(plan.problem).toBeNull();
    expect(plan.passes.map(({ role }) => role)).toEqual(['kiss', 'perforated']);
    expect(plan.passes[1]!.perforation!.tabs).toBeGreaterThan(40);
    expect(plan.holding!.holdIndex).toBeGreaterThan(1);
    await page.getByRole('heading', { name: 'Will the pieces stay in, and come out?' }).waitFor();
    await page.getByRole('button', { name: 'Perforated earlier' }).click();
    await page.getByText(/Out of order: perforated before kiss|Out of order: kiss/).waitFor();
    await page.getByLabel('Route').selectOption('0');
    await expect.poll(() => page.getByText(/Out of order/).count()).toBe(0);
  });

  it('prints marks within 0.1 mm of where the layout has them (poppler)', async () => {
    const file = await drawer.fetchFile(`/api/jobs/${id}/print-sheet`, 'print.pdf');
    const info = execFileSync('pdfinfo', [file], { encoding: 'utf8' });
    const [, width, height] = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(info)!;
    expect((Number(width) * 25.4) / 72).toBeCloseTo(210, 1);
    expect((Number(height) * 25.4) / 72).toBeCloseTo(297, 1);
    const dotsPerMm = 600 / 25.4;
    execFileSync('pdftoppm', [
      '-png',
      '-r',
      '600',
      '-x',
      '0',
      '-y',
      '0',
      '-W',
      '500',
      '-H',
      '500',
      file,
      join(drawer.folder, 'mark'),
    ]);
    const mark = inkBox(join(drawer.folder, 'mark-1.png'), dotsPerMm);
    // The demo's roll-fed machine: discs of 6 mm, 12 mm in.
    expect(Math.abs(mark.left - 12)).toBeLessThan(0.1);
    expect(Math.abs(mark.top - 12)).toBeLessThan(0.1);
    expect(Math.abs(mark.right - 18)).toBeLessThan(0.1);
    expect(Math.abs(mark.bottom - 18)).toBeLessThan(0.1);
    // Under the mark at the upper right lies the corner for test cuts: a patch of ink, 20 × 10 mm of it looked at.
    const spot = ['-x', '670', '-y', '110', '-W', '80', '-H', '40'];
    execFileSync('pdftoppm', ['-png', '-r', '100', ...spot, file, join(drawer.folder, 'patch')]);
    expect(inkBox(join(drawer.folder, 'patch-1.png'), 1)).toEqual({ left: 0, top: 0, right: 80, bottom: 40 });
    expect(execFileSync('pdftotext', [file, '-'], { encoding: 'utf8' })).toMatch(
      /The line above is 100 mm: measure it[\s\S]*print at 100 %/,
    );
  });

  it('writes a machine file that hp2xx draws as librsvg draws the layers: same place, same size (0.3 mm)', async () => {
    // Another journey may have left the machine's files corrected for its shift: then they are not what the layers are.
    await api('/api/machines/1/registration-correction', 'PUT', { isOn: false });
    const hpgl = await drawer.fetchFile(`/api/jobs/${id}/machine-file`, 'job.hpgl');
    const svg = await drawer.fetchFile(`/api/jobs/${id}/layers?format=svg`, 'job.svg');
    const stripped = readFileSync(svg, 'utf8').replace(/<g id="art"[\s\S]*?<\/g>/, '');
    expect(stripped).toContain('<g id="perforated"');
    // Joined round as a pen draws: pointed joins would reach out by up to four times half the width.
    writeFileSync(
      svg,
      stripped.replaceAll(/stroke="#[0-9a-f]{6}"/g, 'stroke="#000000" stroke-linejoin="round"'),
    );
    drawHpgl(hpgl, join(drawer.folder, 'hp.png'), 10);
    drawSvg(svg, join(drawer.folder, 'svg.png'), 10);
    const cut = inkBox(join(drawer.folder, 'hp.png'), 10);
    const drawn = inkBox(join(drawer.folder, 'svg.png'), 10, (r, g, b) => r + g + b < 500);
    expect(Math.abs(cut.right - cut.left - (drawn.right - drawn.left))).toBeLessThan(0.3);
    expect(Math.abs(cut.bottom - cut.top - (drawn.bottom - drawn.top))).toBeLessThan(0.3);
  });

  it('switches force along the tabs, tab force as the kiss', async () => {
    const text = readFileSync(
      await drawer.fetchFile(`/api/jobs/${id}/machine-file?pass=2`, 'perf.hpgl'),
      'utf8',
    );
    const forces = [...text.matchAll(/FS(\d+);/g)].map((match) => Number(match[1]));
    const { reply: plan } = await api<PlanReply>(`/api/jobs/${id}/plan`);
    const { force, tabForce } = plan.passes[1]!.values;
    expect(new Set(forces)).toEqual(new Set([force, tabForce]));
    expect(tabForce).toBe(plan.passes[0]!.values.force);
    expect(forces.filter((one) => one === tabForce)).toHaveLength(plan.passes[1]!.perforation!.tabs);
  });

  it('sends a test piece into the corner that was kept free, one square for each force', async () => {
    const text = readFileSync(await drawer.fetchFile(`/api/jobs/${id}/test-piece`, 'test.hpgl'), 'utf8');
    expect(new Set([...text.matchAll(/FS(\d+)/g)].map((match) => match[1])).size).toBe(2);
    // A4 is 297 mm high and the corner lies right of its middle, in the upper third; 40 units in a mm.
    const spots = [...text.matchAll(/P[UD](\d+),(\d+)/g)].slice(0, -1);
    for (const [, x, y] of spots) {
      expect(Number(x) / 40).toBeGreaterThan(105);
      expect(Number(y) / 40).toBeGreaterThan(198);
    }
  });

  it('has a run sheet on screen and on paper (poppler)', async () => {
    const { page } = drawer.visitor;
    await drawer.step('Run sheet');
    await page.getByLabel(/Kiss with the left tool/).check();
    const file = await drawer.fetchFile(`/api/jobs/${id}/run-sheet`, 'run.pdf');
    const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
    expect(text).toMatch(/Have the machine read the marks/);
    expect(text).toMatch(/mm exposure/);
    expect(text).toMatch(/Power off or retract/);
  });

  it('goes out whole as JSON and comes back the same', async () => {
    const { reply: file } = await api<Record<string, unknown>>(`/api/jobs/${id}/file`);
    const { status, reply } = await api<{ id: number }>('/api/jobs/file', 'POST', file);
    expect(status).toBe(201);
    const [one, two] = await Promise.all(
      [id, reply.id].map(async (job) => (await api<string>(`/api/jobs/${job}/machine-file`)).reply),
    );
    expect(two).toBe(one);
  });

  it('had no error on any page', () => {
    expect(drawer.visitor.errors).toEqual([]);
  });
});
