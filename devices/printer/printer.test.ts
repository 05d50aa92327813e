import { afterEach, describe, expect, it } from 'vitest';
import { PrintError, printFile } from '#devices/printer/printer.ts';
import { servePrinter, type PrinterService } from '#devices/printer/servePrinter.ts';

const pdf = (box = '[0 0 595.28 841.89]') =>
  Buffer.from(`%PDF-1.4\n<< /Type /Page /MediaBox ${box} >>\n%%EOF\n`);
const options = {
  seed: 1,
  sheetNumber: 1,
  wetMinutes: 10,
  fault: null,
  now: new Date('2026-03-01T10:00:00Z'),
};

describe('the stand-in printer', () => {
  it('finds the size of the page and is off by less than two thousandths', () => {
    const sheet = printFile(pdf(), options);
    // A4 in points, ISO 216.
    expect(sheet.widthMm).toBeCloseTo(210, 1);
    expect(sheet.heightMm).toBeCloseTo(297, 1);
    expect(Math.abs(sheet.scale - 1)).toBeLessThan(0.002);
    expect(sheet.wetUntil).toBe('2026-03-01T10:10:00.000Z');
    expect(printFile(pdf(), options)).toEqual(sheet);
    expect(printFile(pdf(), { ...options, sheetNumber: 2 }).scale).not.toBe(sheet.scale);
  });

  it.each([
    ['text', Buffer.from('hello'), /no PDF/],
    ['half a file', Buffer.from('%PDF-1.4\n/MediaBox [0 0 9 9]'), /ends in the middle/],
    ['no page', Buffer.from('%PDF-1.4\n%%EOF'), /no page/],
    ['a page of no size', pdf('[0 0 3 3]'), /is no sheet/],
  ])('refuses %s', (_, file, reason) => {
    expect(() => printFile(file, options)).toThrow(PrintError);
    expect(() => printFile(file, options)).toThrow(reason);
  });
});

describe('over its socket', () => {
  let printer: PrinterService | null = null;
  afterEach(() => printer?.close());

  it('prints, goes wrong once when it is told to, and refuses in words', async () => {
    printer = await servePrinter({ port: 0, seed: 2, wetMinutes: 5 });
    const at = `http://127.0.0.1:${printer.port}`;
    const print = async (file: Buffer) => {
      const reply = await fetch(`${at}/print`, { method: 'POST', body: new Uint8Array(file) });
      return { status: reply.status, body: (await reply.json()) as { trouble?: string; reason?: string } };
    };
    expect(await print(pdf())).toMatchObject({ status: 201, body: { trouble: '' } });
    await fetch(`${at}/fault/wrongTray`, { method: 'POST' });
    expect((await print(pdf())).body.trouble).toMatch(/other tray/);
    expect((await print(pdf())).body.trouble).toBe('');
    expect(await print(Buffer.from('x'))).toMatchObject({ status: 422, body: { reason: 'this is no PDF' } });
    expect(await (await fetch(at)).text()).toMatch(/3 sheets today/);
  });
});
