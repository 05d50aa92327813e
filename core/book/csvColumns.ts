import type { BookSetting } from '#core/book/bookSetting.ts';
import { factsOfField, FIELDS, STRATEGIES, type SettingField } from '#core/setting/settingFields.ts';
import { type Operation, OPERATIONS } from '#core/stack/operation.ts';
import { CONDITION_KINDS, type ConditionKind } from '#core/stack/material.ts';

type TextColumn = Exclude<keyof BookSetting, 'values'>;

/** One column of a CSV file of the book; its heading carries the unit. */
export type CsvColumn =
  | { readonly heading: string; readonly kind: 'text'; readonly field: TextColumn }
  | { readonly heading: string; readonly kind: 'number' | 'word'; readonly field: SettingField };

const text = (heading: string, field: TextColumn): CsvColumn => ({ heading, kind: 'text', field });
const ofField = (field: SettingField): CsvColumn => {
  const { heading, unit } = factsOfField(field);
  return { heading, kind: unit === 'word' ? 'word' : 'number', field };
};
const isNeeded = (field: SettingField) => !factsOfField(field).value.safeParse(undefined).success;

/**
 * The columns of a CSV file, in their order: what every setting has before what some have. They are read by heading,
 * so the order may differ.
 */
export const CSV_COLUMNS: readonly CsvColumn[] = [
  text('maker', 'maker'),
  text('material', 'material'),
  text('state', 'state'),
  text('machine', 'machine'),
  text('blade', 'blade'),
  text('operation', 'operation'),
  ...FIELDS.filter(isNeeded).map(ofField),
  ...FIELDS.filter((field) => !isNeeded(field)).map(ofField),
  text('reason', 'reason'),
  text('author', 'author'),
  text('kept at (UTC)', 'keptAt'),
];

const NEEDED = ['maker', 'material', 'state', 'machine', 'blade', 'operation', 'force (machine scale)'];
/** What a spreadsheet would take for a formula. */
const FORMULA_START = /^[=+\-@\t\r]/;

/**
 * The cells of a setting, in the order of {@link CSV_COLUMNS}; texts that a spreadsheet would run are disarmed.
 *
 * @example writeCsvRow({ maker: 'Oldstrand', material: 'Card', state: 'bare', machine: 'Skua', blade: '45°', operation: 'kiss', values, reason: '', author: 'Ines', keptAt: '' }).slice(0, 7) // ['Oldstrand', 'Card', 'bare', 'Skua', '45°', 'kiss', '90']
 */
export function writeCsvRow(setting: BookSetting): readonly string[] {
  return CSV_COLUMNS.map((column) => {
    const value = column.kind === 'text' ? setting[column.field] : setting.values[column.field];
    if (value === undefined) return '';
    return typeof value === 'number' ? String(value) : disarm(value);
  });
}

/**
 * Puts an apostrophe before a text that begins like a formula; {@link rearm} takes it away again.
 *
 * @example disarm('=SUM(A1)').length // 9
 */
export function disarm(text: string): string {
  return FORMULA_START.test(text) || /^'+[=+\-@\t\r]/.test(text) ? `'${text}` : text;
}

/**
 * The text as it was before {@link disarm}.
 *
 * @example rearm("'=SUM(A1)") // '=SUM(A1)'
 */
export function rearm(text: string): string {
  return /^'+[=+\-@\t\r]/.test(text) ? text.slice(1) : text;
}

/** A row read, or why it cannot be. */
export type CsvReading =
  | { readonly kind: 'setting'; readonly setting: BookSetting }
  | { readonly kind: 'refused'; readonly reason: string };

/**
 * @returns headings that the file must have and has not; empty when it can be read
 * @example missingHeadings(['maker', 'material', 'state', 'machine', 'blade', 'operation']) // ['force (machine scale)']
 */
export function missingHeadings(headings: readonly string[]): readonly string[] {
  const known = new Set(headings.map(plainHeading));
  return NEEDED.filter((heading) => !known.has(heading));
}

/**
 * Reads a row by its headings. Figures may have a decimal comma and spaces between thousands; an empty figure is not
 * said, and the force must be.
 *
 * @example readCsvRow({ maker: 'Oldstrand' }).kind // 'refused'
 */
export function readCsvRow(cells: Readonly<Record<string, string>>): CsvReading {
  const byHeading = new Map(Object.entries(cells).map(([heading, cell]) => [plainHeading(heading), cell]));
  const values: Record<string, unknown> = {};
  const texts: Record<string, string> = {};
  for (const column of CSV_COLUMNS) {
    const cell = rearm((byHeading.get(plainHeading(column.heading)) ?? '').trim());
    if (column.kind === 'text') texts[column.field] = cell;
    else if (cell === '') continue;
    else if (column.kind === 'word') values[column.field] = cell;
    else {
      const figure = readFigure(cell);
      if (figure === null) return refuse(`${column.heading} is "${cell.slice(0, 40)}", which is no number`);
      values[column.field] = figure;
    }
  }
  const problem = findProblem(texts, values);
  if (problem) return refuse(problem);
  const {
    maker = '',
    material = '',
    machine = '',
    blade = '',
    reason = '',
    author = '',
    keptAt = '',
  } = texts;
  return {
    kind: 'setting',
    setting: {
      maker,
      material,
      state: texts['state'] as ConditionKind,
      machine,
      blade,
      operation: texts['operation'] as Operation,
      values: values as unknown as BookSetting['values'],
      reason: reason.slice(0, 300),
      author: author.slice(0, 60),
      keptAt,
    },
  };
}

function findProblem(
  texts: Readonly<Record<string, string>>,
  values: Readonly<Record<string, unknown>>,
): string | null {
  for (const field of ['maker', 'material', 'machine', 'blade'] as const) {
    if (!texts[field]) return `${field} is missing`;
  }
  if (!(CONDITION_KINDS as readonly string[]).includes(texts['state'] ?? '')) {
    return `state is "${texts['state']}", not one of ${CONDITION_KINDS.join(', ')}`;
  }
  if (!(OPERATIONS as readonly string[]).includes(texts['operation'] ?? '')) {
    return `operation is "${texts['operation']}", not one of ${OPERATIONS.join(', ')}`;
  }
  if (values['force'] === undefined) return 'force (machine scale) is missing';
  if (values['speed'] === undefined) return 'speed (machine scale) is missing';
  const strategy = values['strategy'] as string | undefined;
  if (strategy !== undefined && !(STRATEGIES as readonly string[]).includes(strategy)) {
    return `way of freeing is "${strategy}", not one of ${STRATEGIES.join(', ')}`;
  }
  return null;
}

/** @example readFigure('1 234,5') // 1234.5 */
export function readFigure(cell: string): number | null {
  const plain = cell.replace(/[\s\u00a0\u202f']/g, '');
  const figure = /^[+-]?(\d+([.,]\d+)?|[.,]\d+)$/.test(plain) ? Number(plain.replace(',', '.')) : NaN;
  return Number.isFinite(figure) ? figure : null;
}

function plainHeading(heading: string): string {
  return heading
    .replace(/^\ufeff/, '')
    .trim()
    .toLowerCase();
}

function refuse(reason: string): CsvReading {
  return { kind: 'refused', reason };
}
