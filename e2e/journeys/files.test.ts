import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Ajv from 'ajv/dist/2020.js';
import jsQRModule from 'jsqr';
import Papa from 'papaparse';
import { PNG } from 'pngjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ADDRESS, api, go, visit, type Visitor } from '#e2e/support/app.ts';
import type { ImportReply } from '#web/schemas/book.ts';
import type { BookPage } from '#web/schemas/setting.ts';

/** The package is CommonJS: its function sits under `default` once more. */
const jsQR = (jsQRModule as unknown as { default?: typeof jsQRModule }).default ?? jsQRModule;

let ines: Visitor;
beforeAll(async () => {
  ines = await visit('Ines', 1);
});
afterAll(() => ines.leave());

const read = (kind: 'json' | 'csv', text: string, isDryRun: boolean) =>
  api<ImportReply>('/api/book/import', 'POST', { kind, text, isDryRun });
/** With the byte order mark, which `text()` would take away. */
const textOf = async (path: string) =>
  Buffer.from(await (await fetch(`${ADDRESS}${path}`)).arrayBuffer()).toString('utf8');

describe('the book as a file', () => {
  it('keeps its own published schema (checked with ajv)', async () => {
    const schema = JSON.parse(await textOf('/api/book-schema.json')) as object;
    const isBook = new Ajv({ strict: false, validateFormats: false }).compile(schema);
    expect(isBook(JSON.parse(await textOf('/api/book.json'))), JSON.stringify(isBook.errors)).toBe(true);
    expect(isBook({ format: 'something else', version: 1 })).toBe(false);
  });

  it('read back changes nothing, as JSON and as CSV', async () => {
    for (const [kind, path] of [
      ['json', '/api/book.json'],
      ['csv', '/api/book.csv'],
    ] as const) {
      const { status, reply } = await read(kind, await textOf(path), false);
      expect(status).toBe(200);
      expect(reply.rows.filter((row) => row.status !== 'same')).toEqual([]);
      expect(reply.rows.length).toBeGreaterThan(10);
    }
  });

  it('is read by another CSV reader (papaparse) to the same rows, and no cell begins like a formula', async () => {
    const { id } = (await api<BookPage>('/api/settings?text=lantern')).reply.settings[0]!;
    const { reply } = await api<{ values?: object } & BookPage['settings'][number]>(`/api/settings/${id}`);
    const { conditionId, machineId, bladeKind, operation, revision } = reply;
    const key = { conditionId, machineId, bladeKind, operation };
    const values = { ...revision.values, force: revision.values.force + 1 };
    const reason = '=HYPERLINK("http://example.invalid","more; force")';
    await api('/api/settings', 'POST', { ...key, values, reason, basedOn: revision.revision });
    const text = await textOf('/api/book.csv');
    expect(text.charCodeAt(0)).toBe(0xfeff);
    const { data, errors } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
    expect(errors).toEqual([]);
    expect(data).toHaveLength((await api<BookPage>('/api/settings')).reply.total);
    for (const row of data) for (const cell of Object.values(row)) expect(cell).not.toMatch(/^[=+\-@\t\r]/);
    expect(data.find((row) => row['reason']?.includes('HYPERLINK'))?.['reason']).toBe(`'${reason}`);
    expect((await read('csv', text, true)).reply.rows.every(({ status }) => status === 'same')).toBe(true);
  });

  it('shows row by row what a spreadsheet’s file would do, with semicolons and decimal commas, then does it', async () => {
    const { page } = ines;
    const lines = [
      'material;maker;state;machine;blade;operation;force (machine scale);exposure (mm);speed (machine scale);passes;offset (mm);overcut (mm);reason',
      'Capstan vinyl;Tarn & Tide;bare;Gannet 600;45° fine;through;190,4;0,375;200;1;0,25;0,5;from the old table',
      'Capstan vinyl;Tarn & Tide;bare;Gannet 600;45° fine;kiss;much;0,25;200;1;0,25;0,4;',
      'Nothing known;Nobody;bare;Gannet 600;45° fine;kiss;80;0,25;200;1;0,25;0,4;',
    ];
    await go(page, '/book');
    const file = { name: 'old table.csv', mimeType: 'text/csv', buffer: Buffer.from(lines.join('\r\n')) };
    await page.locator('input[type=file]').setInputFiles(file);
    await page.getByText('1 of 3 rows would change what is kept here.').waitFor();
    await page.getByText(/"much", which is no number/).waitFor();
    await page.getByText(/there is no material Nothing known of Nobody/).waitFor();
    const countOf = async () => (await api<BookPage>('/api/settings')).reply.total;
    const before = await countOf();
    await page.getByRole('button', { name: 'Read 1 row in' }).click();
    await page.getByText(/Done: 1 new, 0 changed/).waitFor();
    expect(await countOf()).toBe(before + 1);
    const { reply } = await api<BookPage>('/api/settings?text=capstan&operation=through');
    expect(reply.settings[0]?.revision).toMatchObject({
      values: { force: 190, exposureMm: 0.375 },
      author: 'Ines',
    });
    expect(ines.errors).toEqual([]);
  });

  it.each([
    ['json', '{"format":"pale-feather-book","version":1,"settings":[{"maker":""}]}', /settings\.0\.maker/],
    ['json', 'not json', /this is not JSON/],
    ['json', '{"format":"another","version":1}', /not a file of settings that can be read/],
    ['csv', 'a;b;c\n1;2;3', /no column named maker/],
    ['csv', '', /the file is empty/],
  ] as const)('refuses what is none, with the reason (%#)', async (kind, text, reason) => {
    const { status, reply } = await api<{ error: { message: string } }>('/api/book/import', 'POST', {
      kind,
      text,
    });
    expect(status).toBe(400);
    expect(reply.error.message).toMatch(reason);
  });
});

describe('bench labels', () => {
  it('are A4 cards at real size that name every figure (measured with poppler-utils)', async () => {
    const { reply } = await api<BookPage>('/api/settings');
    const ids = reply.settings.map(({ id }) => id).slice(0, 9);
    const response = await fetch(`${ADDRESS}/api/labels?ids=${ids.join(',')}`);
    expect(response.headers.get('content-type')).toBe('application/pdf');
    const file = join(mkdtempSync(join(tmpdir(), 'labels-')), 'labels.pdf');
    writeFileSync(file, Buffer.from(await response.arrayBuffer()));
    const info = execFileSync('pdfinfo', [file], { encoding: 'utf8' });
    expect(info).toMatch(/Pages: +2/);
    expect(info).toMatch(/Page size: +595\.28 x 841\.89 pts \(A4\)/);
    const words = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
    for (const setting of reply.settings.slice(0, 9)) {
      expect(words).toContain(String(setting.revision.values.force));
      expect(words).toContain(setting.machine);
    }
    const boxes = execFileSync('pdftotext', ['-bbox', file, '-'], { encoding: 'utf8' });
    const places = [...boxes.matchAll(/xMin="([\d.]+)" yMin="([\d.]+)"[^>]*>scan</g)].map((match) =>
      Number(match[1]),
    );
    const across = Math.max(...places) - Math.min(...places);
    // Two cards of 92 mm with 4 mm between stand 96 mm apart, at real size.
    expect((across * 25.4) / 72).toBeCloseTo(96, 1);
  });

  it('carry a code that leads to the setting (read by jsqr from the printed page)', async () => {
    const { id } = (await api<BookPage>('/api/settings?text=herringglass')).reply.settings[0]!;
    const folder = mkdtempSync(join(tmpdir(), 'label-'));
    const pdf = await (await fetch(`${ADDRESS}/api/labels?ids=${id}`)).arrayBuffer();
    writeFileSync(join(folder, 'label.pdf'), Buffer.from(pdf));
    execFileSync('pdftoppm', ['-r', '200', '-png', join(folder, 'label.pdf'), join(folder, 'label')]);
    const page = PNG.sync.read(readFileSync(join(folder, 'label-1.png')));
    const read = jsQR(Uint8ClampedArray.from(page.data), page.width, page.height);
    expect(read?.data).toBe(`${ADDRESS}/settings/${id}`);
  });

  it('are refused for what does not exist', async () => {
    expect((await api('/api/labels?ids=99999')).status).toBe(404);
    expect((await api('/api/labels?ids=x')).status).toBe(400);
  });
});

describe('the corner piece', () => {
  it('is a drawing and a machine file at the force of the setting', async () => {
    const { id, revision } = (await api<BookPage>('/api/settings?operation=kiss')).reply.settings[0]!;
    expect(await textOf(`/api/settings/${id}/corner-piece`)).toMatch(/^<svg .*width="26mm"/);
    const hpgl = await textOf(`/api/settings/${id}/corner-piece?format=hpgl`);
    expect(hpgl).toMatch(new RegExp(`FS${revision.values.force};`));
    expect(hpgl.match(/PU\d/g)).toHaveLength(3);
  });
});
