import { parse } from 'csv-parse/sync';
import { z } from 'zod';
import { missingHeadings, readCsvRow } from '#core/book/csvColumns.ts';
import { AppError } from '#core/errors/appError.ts';
import type { BookFile } from '#store/repositories/book/importBook.ts';
import type { BookRow } from '#store/repositories/book/importedRow.ts';
import { bookFileSchema, MOST_ROWS } from '#web/schemas/book.ts';

/**
 * Reads a JSON file of a book.
 *
 * @throws AppError `badInput`, saying what is wrong and where, when it is not one
 */
export function readJsonBook(text: string): BookFile {
  const parsed = bookFileSchema.safeParse(parseJson(text));
  if (!parsed.success) {
    const [first] = parsed.error.issues;
    const place = first?.path.join('.') || 'the file';
    throw new AppError(
      'badInput',
      `this is not a file of settings that can be read: ${place}: ${first?.message ?? ''}`,
    );
  }
  const { materials, machines, settings } = parsed.data;
  return { materials, machines, settings: settings.map((setting, index) => ({ line: index + 1, setting })) };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw new AppError('badInput', `this is not JSON: ${error instanceof Error ? error.message : ''}`);
  }
}

const cells = z.array(z.record(z.string(), z.string()));

/**
 * Reads a CSV file of settings: commas, semicolons or tabs between the cells, as the heading row has them. Rows that
 * cannot be read come along with their reason.
 *
 * @throws AppError `badInput` when the file has no such headings; `tooLarge` for too many rows
 */
export function readCsvBook(text: string): BookFile {
  const [heading = ''] = text.replace(/^\ufeff/, '').split(/\r?\n/, 1);
  const delimiter = [';', '\t', ','].toSorted(
    (a, b) => countOf(heading, b) - countOf(heading, a),
  )[0] as string;
  const records = parseCsv(text, delimiter);
  const missing = missingHeadings(Object.keys(records[0]?.record ?? {}));
  if (missing.length > 0)
    throw new AppError('badInput', `the file has no column named ${missing.join(', ')}`);
  if (records.length > MOST_ROWS) {
    throw new AppError('tooLarge', `${records.length} rows are more than ${MOST_ROWS}: part the file`);
  }
  const settings = records.map(({ record, line }): BookRow => {
    const read = readCsvRow(record);
    return read.kind === 'setting' ? { line, setting: read.setting } : { line, refused: read.reason };
  });
  return { materials: [], machines: [], settings };
}

function parseCsv(text: string, delimiter: string) {
  try {
    const parsed: unknown = parse(text, {
      columns: true,
      delimiter,
      bom: true,
      skip_empty_lines: true,
      relax_column_count: true,
      info: true,
    });
    const withLines = z
      .array(z.object({ record: cells.element, info: z.object({ lines: z.number() }) }))
      .parse(parsed);
    return withLines.map(({ record, info }) => ({ record, line: info.lines }));
  } catch (error) {
    if (error instanceof z.ZodError) throw new AppError('badInput', 'a row of the file could not be read');
    throw new AppError('badInput', `this is not CSV: ${error instanceof Error ? error.message : ''}`);
  }
}

function countOf(text: string, part: string): number {
  return text.split(part).length - 1;
}
