import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openBrowser } from '#commands/openBrowser.ts';
import { findViolations } from '#e2e/support/axe.ts';
import {
  ADDRESS,
  api,
  arrive,
  BENCH_SIZE,
  go,
  PHONE_SIZE,
  setUp,
  visit,
  type Visitor,
} from '#e2e/support/app.ts';
import { settle } from '#e2e/support/settle.ts';
import type { TravellingSheetJson } from '#web/schemas/sheetCode.ts';

/** A sheet with its settings is printed as a code, and read from a camera, a photo, a file and a message. */
const folder = mkdtempSync(join(tmpdir(), 'code-'));
let bo: Visitor;
let name: string;
beforeAll(async () => {
  bo = await visit('Bo', 1, PHONE_SIZE);
  const label = await fetch(`${ADDRESS}/api/materials/1/code.pdf`);
  writeFileSync(join(folder, 'label.pdf'), Buffer.from(await label.arrayBuffer()));
  execFileSync('pdftoppm', [
    '-r',
    '300',
    '-png',
    '-singlefile',
    join(folder, 'label.pdf'),
    join(folder, 'label'),
  ]);
  name = (await api<{ name: string }>('/api/materials/1')).reply.name;
});
afterAll(() => bo.leave());

/**
 * What a camera sees of the label: it lies on a grey bench. Source of the form: YUV4MPEG2, as Chromium's fake camera
 * reads it.
 */
function filmLabel(file: string): void {
  const [width, height] = [1280, 720];
  const { data, width: wide, height: tall } = PNG.sync.read(readFileSync(join(folder, 'label.png')));
  const luma = Buffer.alloc(width * height, 120);
  const [left, top] = [Math.round((width - wide) / 2), Math.round((height - tall) / 2)];
  for (let y = 0; y < tall; y++) {
    for (let x = 0; x < wide; x++) luma[(top + y) * width + left + x] = data[4 * (y * wide + x)] ?? 0;
  }
  const frame = Buffer.concat([Buffer.from('FRAME\n'), luma, Buffer.alloc((width * height) / 2, 128)]);
  writeFileSync(
    file,
    Buffer.concat([Buffer.from(`YUV4MPEG2 W${width} H${height} F10:1 Ip A1:1 C420jpeg\n`), frame, frame]),
  );
}

const held = (page: Visitor['page']) => page.getByRole('region', { name: 'What it holds' });

describe('a sheet as one code', () => {
  it('stands on a page of its own, which is reached from the sheet', async () => {
    const { page } = bo;
    await go(page, '/materials/1');
    await page.getByRole('link', { name: 'As one code' }).click();
    await arrive(page, /^\/materials\/1\/code$/);
    await page.getByRole('img', { name: `Code of ${name}` }).waitFor();
    expect(await findViolations(bo)).toEqual([]);
  });

  it('is read by a camera from the printed label', async () => {
    filmLabel(join(folder, 'bench.y4m'));
    const flags = [
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-video-capture=${join(folder, 'bench.y4m')}`,
    ];
    const context = await openBrowser(BENCH_SIZE, { flags });
    const page = await context.newPage();
    await page.goto(`${ADDRESS}/read-code`, { waitUntil: 'load' });
    await settle(page);
    await page.getByRole('button', { name: 'Point the camera at it' }).click();
    await held(page).getByRole('heading', { name }).waitFor();
    await held(page).getByText('You have this sheet').waitFor();
    // It does not go on filming.
    expect(await page.getByRole('button', { name: 'Stop the camera' }).count()).toBe(0);
    await context.close();
  });

  it('is read from a photo, and one without a code is told', async () => {
    const { page } = bo;
    await go(page, '/read-code');
    const photo = page.getByLabel('Take or choose a photo of it');
    const blank = new PNG({ width: 400, height: 300 });
    blank.data.fill(255);
    await photo.setInputFiles({ name: 'desk.png', mimeType: 'image/png', buffer: PNG.sync.write(blank) });
    await page
      .getByRole('alert')
      .getByText(/No code was found/)
      .waitFor();
    await photo.setInputFiles(join(folder, 'label.png'));
    await held(page).getByRole('heading', { name }).waitFor();
    expect(await page.getByRole('alert').count()).toBe(0);
    expect(await findViolations(bo)).toEqual([]);
  });

  it('is taken in with its settings worked out for the machine that is chosen', async () => {
    const { page } = bo;
    const sheet = (await api<TravellingSheetJson>('/api/materials/1/sheet.json')).reply;
    const far = { ...sheet, material: { ...sheet.material, name: 'Far-off matt', maker: 'Elsewhere' } };
    await go(page, '/read-code');
    await page.getByLabel('Open a sheet’s file').setInputFiles({
      name: 'far.json',
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify(far)),
    });
    await held(page).getByText('New here.').waitFor();
    await held(page)
      .getByText(/\d+ of \d+ rows would change/)
      .waitFor();
    for (const select of (await held(page).getByRole('combobox').all()).slice(1)) {
      await select.selectOption({ label: 'Leave them out' });
    }
    await held(page)
      .getByRole('button', { name: /^Read \d+ rows? in$/ })
      .click();
    await held(page)
      .getByText(/^Done:/)
      .waitFor();
    await go(page, '/settings?text=Far-off');
    await page
      .getByRole('link', { name: /Far-off matt/ })
      .first()
      .waitFor();
    expect(bo.errors).toEqual([]);
    const { reply: found } = await api<readonly { id: number; name: string }[]>('/api/materials');
    const here = found.find((material) => material.name === 'Far-off matt');
    await setUp(`/api/materials/${here?.id}/archive`, 'POST', { isArchived: true });
  });

  it('of a label opens its setting, whatever address it was printed with', async () => {
    const { page } = bo;
    await go(page, '/read-code');
    await page.getByLabel('Or paste what it says').fill('https://10.1.2.3:4600/settings/1');
    await page.getByRole('button', { name: 'Read it' }).click();
    await arrive(page, /^\/settings\/1$/);
  });
});
