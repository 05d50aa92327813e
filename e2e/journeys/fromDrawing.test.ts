import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { PNG } from 'pngjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ADDRESS, api, arrive, go, visit, type Visitor } from '#e2e/support/app.ts';
import type { JobReply, PlanReply } from '#web/schemas/job.ts';

/**
 * A newcomer takes a drawing from an open icon set to a full sheet of kiss-cut stickers with perforated outlines on the
 * roll-fed machine, and a folding card from another program to creases, a slit and a light-pass outline on the mat-fed
 * one. What comes out is read by hp2xx, ezdxf, poppler and librsvg.
 */
const icons = join(dirname(createRequire(import.meta.url).resolve('lucide-static/package.json')), 'icons');
const fish = readFileSync(join(icons, 'fish.svg'), 'utf8')
  .replace('width="24"', 'width="40mm"')
  .replace('height="24"', 'height="40mm"');

/** A card of 100 x 70 mm as Debian's python3-ezdxf writes it: outline with rounded corners, two folds, a slit. */
const CARD_SCRIPT = `
import sys, ezdxf
doc = ezdxf.new('R2010', setup=True)
doc.units = ezdxf.units.MM
for name, colour in (('CREASE', 30), ('SLIT', 1), ('OUTLINE', 7)): doc.layers.add(name, color=colour)
msp = doc.modelspace()
b = 0.41421356
msp.add_lwpolyline([(5,0,0),(95,0,b),(100,5,0),(100,65,b),(95,70,0),(5,70,b),(0,65,0),(0,5,b)], format='xyb', close=True, dxfattribs={'layer':'OUTLINE'})
msp.add_line((35,0.5),(35,69.5), dxfattribs={'layer':'CREASE'})
msp.add_line((65,0.5),(65,69.5), dxfattribs={'layer':'CREASE'})
msp.add_arc((50,20), 8, 200, 340, dxfattribs={'layer':'SLIT'})
doc.saveas(sys.argv[1])
`;
/** Reads a DXF with python3-ezdxf and says what lies on each layer and how large it is. */
const READ_SCRIPT = `
import sys, json, ezdxf
from ezdxf import bbox
doc = ezdxf.readfile(sys.argv[1])
msp = doc.modelspace()
found = {}
for e in msp: found[e.dxf.layer] = found.get(e.dxf.layer, 0) + 1
box = bbox.extents(msp)
print(json.dumps({'layers': found, 'size': [box.size.x, box.size.y], 'min': [box.extmin.x, box.extmin.y]}))
`;

let folder: string;
let mira: Visitor;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'drawing-'));
  mira = await visit('Mira');
});
afterAll(async () => {
  await mira.leave();
  rmSync(folder, { recursive: true, force: true });
});

const python = (script: string, ...rest: string[]) =>
  execFileSync('/usr/bin/python3', ['-c', script, ...rest], { encoding: 'utf8' });

async function fetchFile(path: string, name: string): Promise<string> {
  const reply = await fetch(`${ADDRESS}${path}`);
  expect(reply.status).toBe(200);
  const file = join(folder, name);
  writeFileSync(file, Buffer.from(await reply.arrayBuffer()));
  return file;
}

async function open(name: string, text: string): Promise<number> {
  const { page } = mira;
  await go(page, '/jobs');
  await page
    .locator('input[type=file]')
    .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  await arrive(page, /^\/jobs\/\d+$/);
  await page.getByRole('tab', { name: /Roles/ }).waitFor();
  return Number(/\d+$/.exec(new URL(page.url()).pathname)?.[0]);
}

const step = (name: string) => mira.page.getByRole('tab', { name: new RegExp(`\\d ${name}`) }).click();
/** Changes are counted: the next begins when the last is kept. */
const kept = async (id: number, least: number) =>
  expect
    .poll(async () => (await api<JobReply>(`/api/jobs/${id}`)).reply.version)
    .toBeGreaterThanOrEqual(least);

/** Dark pixels of a picture as a box, in mm. */
function inkBox(
  file: string,
  dotsPerMm: number,
  isInk = (r: number, g: number, b: number) => r + g + b < 200,
) {
  const { width, height, data } = PNG.sync.read(readFileSync(file));
  let [left, top, right, bottom] = [width, height, 0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = (y * width + x) * 4;
      if (!isInk(data[at]!, data[at + 1]!, data[at + 2]!)) continue;
      left = Math.min(left, x);
      right = Math.max(right, x + 1);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y + 1);
    }
  }
  return {
    left: left / dotsPerMm,
    top: top / dotsPerMm,
    right: right / dotsPerMm,
    bottom: bottom / dotsPerMm,
  };
}

describe('from an icon to a sheet of stickers on the roll-fed machine', () => {
  let id = 0;

  it('opens the icon, takes its lines for art and adds a kissed and a perforated border', async () => {
    const { page } = mira;
    await api('/api/stations/1', 'PATCH', {
      conditionId: await conditionOf('Herringglass matt white', 'laminated'),
    });
    id = await open('fish.svg', fish);
    await page.getByText('These are guesses').waitFor();
    await page.getByRole('radio', { name: 'Art' }).first().click();
    await kept(id, 2);
    await step('Drawing');
    await page.getByLabel(/A new outline/).fill('2');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Add border' }).click();
    await kept(id, 3);
    await page.getByText('1 mend made').waitFor();
    await page.getByRole('button', { name: 'Add border' }).click();
    await page.getByText('2 mends made').waitFor();
    await step('Roles');
    await expect.poll(() => page.getByRole('radio', { name: 'Kiss', checked: true }).count()).toBe(1);
    expect(await page.getByRole('radio', { name: 'Perforated', checked: true }).count()).toBe(1);
  });

  it('fills the sheet with pieces, clear of marks and of the corner for a test cut', async () => {
    const { page } = mira;
    await step('Sheet');
    await page.getByLabel('Size').selectOption('A4');
    await kept(id, 5);
    await page.getByLabel(/Registration marks/).check();
    await kept(id, 6);
    await page.getByLabel(/Keep a corner free/).check();
    await kept(id, 7);
    await page.getByRole('radio', { name: 'Each piece by itself' }).click();
    await page.getByText('Nothing lies on the sheet yet.').waitFor();
    await page.getByLabel(/Copies/).fill('0');
    await page.keyboard.press('Enter');
    await kept(id, 9);
    await page.getByRole('button', { name: 'Lay out' }).click();
    await page.getByText(/\d+ pieces on one sheet\./).waitFor({ timeout: 40_000 });
    const { reply: job } = await api<JobReply>(`/api/jobs/${id}`);
    expect(job.layout.placements.length).toBeGreaterThanOrEqual(12);
  });

  it('plans a kiss and a perforation with tabs, and says how they will hold', async () => {
    const { page } = mira;
    await step('Passes');
    await page.getByRole('heading', { name: 'In this order' }).waitFor();
    const { reply: plan } = await api<PlanReply>(`/api/jobs/${id}/plan`);
    expect(plan.problem).toBeNull();
    expect(plan.passes.map(({ role }) => role)).toEqual(['kiss', 'perforated']);
    expect(plan.passes[1]!.perforation!.tabs).toBeGreaterThan(40);
    expect(plan.holding!.holdIndex).toBeGreaterThan(1);
    await page.getByRole('heading', { name: 'Will the pieces stay in, and come out?' }).waitFor();
    await page.getByRole('button', { name: 'Perforated earlier' }).click();
    await page.getByText(/Out of order: perforated before kiss|Out of order: kiss/).waitFor();
    await page.getByRole('button', { name: 'usual order' }).click();
    await expect.poll(() => page.getByText(/Out of order/).count()).toBe(0);
  });

  it('prints marks within 0.1 mm of where the layout has them (poppler)', async () => {
    const file = await fetchFile(`/api/jobs/${id}/print-sheet`, 'print.pdf');
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
      '850',
      '-H',
      '850',
      file,
      join(folder, 'mark'),
    ]);
    const mark = inkBox(join(folder, 'mark-1.png'), dotsPerMm);
    // The demo's roll-fed machine: 18 mm long, 12 mm in.
    expect(Math.abs(mark.left - 12)).toBeLessThan(0.1);
    expect(Math.abs(mark.top - 12)).toBeLessThan(0.1);
    expect(Math.abs(mark.right - 30)).toBeLessThan(0.1);
    expect(Math.abs(mark.bottom - 30)).toBeLessThan(0.1);
    expect(execFileSync('pdftotext', [file, '-'], { encoding: 'utf8' })).toMatch(/print at 100 %/);
  });

  it('writes a machine file that hp2xx draws as librsvg draws the layers: same place, same size (0.3 mm)', async () => {
    const hpgl = await fetchFile(`/api/jobs/${id}/machine-file`, 'job.hpgl');
    const svg = await fetchFile(`/api/jobs/${id}/layers?format=svg`, 'job.svg');
    const stripped = readFileSync(svg, 'utf8').replace(/<g id="art"[\s\S]*?<\/g>/, '');
    expect(stripped).toContain('<g id="perforated"');
    writeFileSync(svg, stripped.replaceAll(/stroke="#[0-9a-f]{6}"/g, 'stroke="#000000"'));
    execFileSync('hp2xx', [
      '-q',
      '-m',
      'png',
      '-t',
      '-d',
      '254',
      '-p',
      '1',
      '-f',
      join(folder, 'hp.png'),
      hpgl,
    ]);
    execFileSync('rsvg-convert', [
      '-d',
      '254',
      '-p',
      '254',
      '-b',
      'white',
      '-o',
      join(folder, 'svg.png'),
      svg,
    ]);
    const cut = inkBox(join(folder, 'hp.png'), 10);
    const drawn = inkBox(join(folder, 'svg.png'), 10, (r, g, b) => r + g + b < 500);
    expect(Math.abs(cut.right - cut.left - (drawn.right - drawn.left))).toBeLessThan(0.3);
    expect(Math.abs(cut.bottom - cut.top - (drawn.bottom - drawn.top))).toBeLessThan(0.3);
  });

  it('switches force along the tabs, tab force as the kiss', async () => {
    const text = readFileSync(await fetchFile(`/api/jobs/${id}/machine-file?pass=2`, 'perf.hpgl'), 'utf8');
    const forces = [...text.matchAll(/FS(\d+);/g)].map((match) => Number(match[1]));
    const { reply: plan } = await api<PlanReply>(`/api/jobs/${id}/plan`);
    const { force, tabForce } = plan.passes[1]!.values;
    expect(new Set(forces)).toEqual(new Set([force, tabForce]));
    expect(tabForce).toBe(plan.passes[0]!.values.force);
    expect(forces.filter((one) => one === tabForce)).toHaveLength(plan.passes[1]!.perforation!.tabs);
  });

  it('has a run sheet on screen and on paper (poppler)', async () => {
    const { page } = mira;
    await step('Run sheet');
    await page.getByLabel(/Kiss with the left tool/).check();
    const file = await fetchFile(`/api/jobs/${id}/run-sheet`, 'run.pdf');
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
    expect(mira.errors).toEqual([]);
  });
});

describe('a folding card on the mat-fed machine', () => {
  let id = 0;

  it('reads the card that ezdxf wrote at its true size, with roles by its layers', async () => {
    const { page } = mira;
    const file = join(folder, 'card.dxf');
    python(CARD_SCRIPT, file);
    await mira.context.addCookies([{ name: 'feather_station', value: '2', url: ADDRESS }]);
    await api('/api/stations/2', 'PATCH', { conditionId: await conditionOf('Seedbox carton', 'bare') });
    id = await open('card.dxf', readFileSync(file, 'utf8'));
    await page.getByText(/the layer is named "CREASE"/).waitFor();
    for (const role of ['Crease', 'Slit', 'Through']) {
      expect(await page.getByRole('radio', { name: role, checked: true }).count()).toBe(1);
    }
    await step('Drawing');
    await page.getByText('100.0 × 70.0 mm as drawn').waitFor();
    await page.getByText('Nothing found').waitFor();
  });

  it('creases with the second tool, slits, and frees the piece in two light passes, in this order', async () => {
    const { page } = mira;
    await step('Passes');
    await page.getByRole('heading', { name: 'In this order' }).waitFor();
    const { reply: plan } = await api<PlanReply>(`/api/jobs/${id}/plan`);
    expect(plan.passes.map(({ role, seat, values }) => [role, seat, values.passes])).toEqual([
      ['crease', 2, 1],
      ['slit', 1, 2],
      ['through', 1, 2],
    ]);
    expect(plan.freeing!.pick).toBe('severalLight');
    const hpgl = readFileSync(await fetchFile(`/api/jobs/${id}/machine-file`, 'card.hpgl'), 'utf8');
    expect([...hpgl.matchAll(/SP(\d)/g)].map((match) => match[1])).toEqual(['2', '1', '0']);
  });

  it('writes DXF that ezdxf reads: layers by role, on the sheet where it lies (0.02 mm)', async () => {
    const file = await fetchFile(`/api/jobs/${id}/layers?format=dxf`, 'out.dxf');
    const read = JSON.parse(python(READ_SCRIPT, file)) as {
      layers: Record<string, number>;
      size: [number, number];
      min: [number, number];
    };
    expect(read.layers).toEqual({ CREASE: 2, SLIT: 1, THROUGH: 1 });
    expect(Math.abs(read.size[0] - 100)).toBeLessThan(0.02);
    expect(Math.abs(read.size[1] - 70)).toBeLessThan(0.02);
    expect(Math.abs(read.min[0] - 6)).toBeLessThan(0.02);
  });

  it('is cut on the stand-in with every stroke reported', async () => {
    const { page } = mira;
    await step('Cut');
    await page.getByRole('button', { name: /^Send to/ }).click();
    await arrive(page, /^\/runs\/\d+$/);
    await page.getByText(/^Done/).first().waitFor({ timeout: 60_000 });
    const run = Number(/\d+$/.exec(new URL(page.url()).pathname)?.[0]);
    const { reply } = await api<{ strokes: unknown[]; outcomes: unknown[]; state: string }>(
      `/api/runs/${run}`,
    );
    expect(reply.state).toBe('done');
    expect(reply.outcomes).toHaveLength(reply.strokes.length);
  });

  it('keeps a rule for the next drawing, and two people are told of each other', async () => {
    const { page } = mira;
    await go(page, `/jobs/${id}`);
    await step('Roles');
    await page.getByRole('button', { name: 'Make it a rule' }).first().click();
    await page.getByText('A rule of this workshop.').waitFor();
    const { reply: job } = await api<JobReply>(`/api/jobs/${id}`);
    await api(`/api/jobs/${id}`, 'PATCH', { version: job.version, name: 'Card, second name' });
    await page.getByRole('radio', { name: 'Score' }).first().click();
    await page.getByText(/Somebody else changed this job meanwhile/).waitFor();
    expect((await api<JobReply>(`/api/jobs/${id}`)).reply.roles).toEqual(job.roles);
  });

  it('refuses a broken drawing with line and reason, and nothing is lost', async () => {
    const { page } = mira;
    await go(page, '/jobs');
    const before = (await api<unknown[]>('/api/jobs')).reply.length;
    await page.locator('input[type=file]').setInputFiles({
      name: 'broken.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from('<svg width="9mm" height="9mm">\n<path d="M0 0 L banana"/></svg>'),
    });
    await page.getByText(/line 2: a path cannot be read/).waitFor();
    expect((await api<unknown[]>('/api/jobs')).reply).toHaveLength(before);
  });
});

async function conditionOf(name: string, kind: string): Promise<number> {
  const { reply } =
    await api<{ name: string; conditions: { id: number; kind: string }[] }[]>('/api/materials');
  return reply.find((one) => one.name === name)!.conditions.find((one) => one.kind === kind)!.id;
}
