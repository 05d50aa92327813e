import { describe, expect, it } from 'vitest';
import { stringify } from 'csv-stringify/sync';
import { CSV_COLUMNS } from '#core/book/csvColumns.ts';
import { PLAIN_WRITING } from '#core/units/writing.ts';
import { drawLabels } from '#web/endpoints/jobs/drawLabels.ts';
import { readCsvBook, readJsonBook } from '#web/endpoints/book/readBookFile.ts';
import { idList } from '#web/endpoints/jobs/prints.ts';
import { sampleMaterial, sampleSetting } from '#web/tests/sampleBook.ts';
import { BOOK_FORMAT, MOST_ROWS } from '#web/schemas/book.ts';

const headings = CSV_COLUMNS.map(({ heading }) => heading);
const cells = (change: Record<string, string> = {}) => {
  const row: Record<string, string> = {
    maker: 'Oldstrand',
    material: 'Mooring "vinyl", navy',
    state: 'bare',
    machine: 'Gannet 600',
    blade: '45° fine',
    operation: 'kiss',
    'force (machine scale)': '92',
    'exposure (mm)': '0.25',
    'speed (machine scale)': '200',
    passes: '1',
    reason: 'weeds in one pull;\nin two lines',
    ...change,
  };
  return headings.map((heading) => row[heading] ?? '');
};
const only = (text: string) => {
  const [row] = readCsvBook(text).settings;
  if (!row || !('setting' in row)) throw new Error('the row was refused');
  return row.setting;
};

describe('a CSV file of settings', () => {
  it.each([
    [',', '\n'],
    [';', '\r\n'],
    ['\t', '\n'],
  ])(
    'is read with %j between cells and %j between rows, quotes and line breaks inside',
    (delimiter, record) => {
      const text = stringify([headings, cells()], { delimiter, record_delimiter: record });
      expect(only(text)).toMatchObject({
        material: 'Mooring "vinyl", navy',
        reason: 'weeds in one pull;\nin two lines',
        values: { force: 92, exposureMm: 0.25, speed: 200 },
      });
    },
  );

  it('is read with decimal commas and a byte order mark, as spreadsheets of half of Europe write it', () => {
    const text = stringify(
      [headings, cells({ 'exposure (mm)': '0,375', 'force (machine scale)': '1 092,5' })],
      {
        delimiter: ';',
        bom: true,
      },
    );
    expect(only(text).values).toMatchObject({ exposureMm: 0.375, force: 1092.5 });
  });

  it('names the line of a row it cannot read, and reads the others', () => {
    const text = stringify([headings, cells(), cells({ operation: 'burn' }), cells({ machine: '' })]);
    const { settings } = readCsvBook(text);
    expect(settings.map((row) => ('refused' in row ? row.refused : 'read'))).toEqual([
      'read',
      expect.stringContaining('operation is "burn"'),
      'machine is missing',
    ]);
    expect(settings.map(({ line }) => line)).toEqual(
      [...settings.map(({ line }) => line)].sort((a, b) => a - b),
    );
  });

  it.each([
    ['a;b\n1;2', /no column named maker, material/],
    ['"open', /this is not CSV/],
    ['', /no column named/],
  ])('refuses %j with the reason', (text, reason) => {
    expect(() => readCsvBook(text)).toThrow(reason);
  });

  it('refuses more rows than it reads at once', () => {
    const rows = Array.from({ length: MOST_ROWS + 1 }, () => cells());
    expect(() => readCsvBook(stringify([headings, ...rows]))).toThrow(/20001 rows are more than 20000/);
  });
});

describe('a JSON file of a book', () => {
  const book = { format: BOOK_FORMAT, version: 1 };

  it('may leave out every part', () => {
    expect(readJsonBook(JSON.stringify(book))).toEqual({ materials: [], machines: [], settings: [] });
  });

  it.each([
    ['[]', /not a file of settings/],
    ['{', /this is not JSON/],
    [JSON.stringify({ ...book, version: 9 }), /version/],
    [JSON.stringify({ ...book, settings: [{}] }), /settings\.0\.maker/],
    [JSON.stringify({ ...book, materials: [{ name: 'x' }] }), /materials\.0/],
  ])('is refused with the place of what is wrong (%#)', (text, reason) => {
    expect(() => readJsonBook(text)).toThrow(reason);
  });
});

const PLAIN = { system: 'metric', writing: PLAIN_WRITING } as const;

describe('bench labels', () => {
  it('are a PDF, a page for every eight', async () => {
    const label = {
      setting: sampleSetting(),
      stack: sampleMaterial.conditions[0]!.stack,
      faceColour: '#ffffff',
      address: 'http://127.0.0.1:4310/settings/7',
    };
    const pagesOf = (pdf: Buffer) => (pdf.toString('latin1').match(/\/Type \/Page\b/g) ?? []).length;
    const one = await drawLabels([label], PLAIN);
    expect(one.subarray(0, 5).toString()).toBe('%PDF-');
    expect(pagesOf(one)).toBe(1);
    expect(
      pagesOf(
        await drawLabels(
          Array.from({ length: 9 }, () => label),
          PLAIN,
        ),
      ),
    ).toBe(2);
  });

  it('are asked for by ids with commas, each once', () => {
    expect(idList.parse('3,1,3')).toEqual([3, 1]);
    for (const odd of ['', '1,', 'a', '-1', '1;2']) expect(idList.safeParse(odd).success).toBe(false);
  });
});
