import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { BookSetting } from '#core/book/bookSetting.ts';
import {
  CSV_COLUMNS,
  disarm,
  missingHeadings,
  readCsvRow,
  readFigure,
  rearm,
  writeCsvRow,
} from '#core/book/csvColumns.ts';

const setting: BookSetting = {
  maker: 'Oldstrand',
  material: 'Mooring vinyl, navy',
  state: 'bare',
  machine: 'Gannet 600',
  blade: '45° fine',
  operation: 'perforated',
  values: {
    force: 180,
    exposureMm: 0.375,
    speed: 200,
    passes: 1,
    offsetMm: 0.25,
    overcutMm: 0.4,
    tabForce: 92,
    cutLengthMm: 17,
    tabLengthMm: 1.2,
    cornerClearanceMm: 2,
  },
  reason: '=SUM(A1:A9)',
  author: 'Ines',
  keptAt: '2026-11-03T09:00:00.000Z',
};
const asCells = (cells: readonly string[]) =>
  Object.fromEntries(CSV_COLUMNS.map(({ heading }, index) => [heading, cells[index] as string]));

describe('a row of the book as CSV', () => {
  it('reads back as it was written, formulas disarmed in between', () => {
    const cells = writeCsvRow(setting);
    expect(cells).toContain("'=SUM(A1:A9)");
    expect(readCsvRow(asCells(cells))).toEqual({ kind: 'setting', setting });
  });

  it('gives back any text, and never a cell that a spreadsheet would run', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        expect(rearm(disarm(text))).toBe(text);
        expect(disarm(text)).not.toMatch(/^[=+\-@\t\r]/);
      }),
      { seed: 3 },
    );
    for (const text of ['=1', "'=1", "''=1", '+1', '-1', '@a', "it's"])
      expect(rearm(disarm(text))).toBe(text);
  });

  it.each([
    ['0,375', 0.375],
    ['1 234,5', 1234.5],
    ["1'234.5", 1234.5],
    ['.5', 0.5],
    ['12 gf', null],
    ['1.234,5', null],
    ['', null],
    ['NaN', null],
  ])('reads the figure %j as %j', (cell, figure) => expect(readFigure(cell)).toBe(figure));

  it.each([
    [{ 'force (machine scale)': '' }, /force .* is missing/],
    [{ 'force (machine scale)': 'much' }, /"much", which is no number/],
    [{ operation: 'burn' }, /operation is "burn", not one of kiss, through/],
    [{ state: 'wet' }, /state is "wet"/],
    [{ maker: '' }, /maker is missing/],
    [{ 'way of freeing': 'tearing' }, /way of freeing is "tearing"/],
  ])('refuses %j with the reason', (change, reason) => {
    const read = readCsvRow({ ...asCells(writeCsvRow(setting)), ...change });
    expect(read).toMatchObject({ kind: 'refused', reason: expect.stringMatching(reason) });
  });

  it('is found by its headings in any order and case, also behind a byte order mark', () => {
    const cells = Object.fromEntries(
      Object.entries(asCells(writeCsvRow(setting)))
        .reverse()
        .map(([heading, cell], index) => [index === 0 ? `\ufeff${heading}` : heading.toUpperCase(), cell]),
    );
    expect(readCsvRow(cells)).toEqual({ kind: 'setting', setting });
    expect(missingHeadings(Object.keys(cells))).toEqual([]);
    expect(missingHeadings(['maker', 'material'])).toContain('force (machine scale)');
  });
});
