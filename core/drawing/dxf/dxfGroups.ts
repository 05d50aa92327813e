import { itemAt } from '#core/collections/itemAt.ts';
import type { ReadProgress } from '#core/drawing/drawing.ts';
import { AppError } from '#core/errors/appError.ts';

/** One entity, table entry or section mark: a type and the values of its group codes in file order. */
export interface DxfRecord {
  readonly type: string;
  readonly codes: readonly number[];
  readonly values: readonly string[];
  readonly line: number;
}

/**
 * Reads the text form of DXF into records: each begins with group code 0 and holds what follows up to the next.
 *
 * @throws AppError `badDrawing` with the line for the binary form and for pairs that are none
 * @example readDxfGroups('  0\nSECTION\n  2\nENTITIES\n  0\nENDSEC\n  0\nEOF\n').length // 3
 */
export function readDxfGroups(text: string, onProgress?: ReadProgress): readonly DxfRecord[] {
  if (text.startsWith('AutoCAD Binary DXF')) {
    throw new AppError('badDrawing', 'this is the binary form of DXF; save it as text (ASCII) DXF');
  }
  const records: DxfRecord[] = [];
  let current: { type: string; codes: number[]; values: string[]; line: number } | null = null;
  // Returns alone end lines on old machines, and doubled ones where a file was copied badly.
  const lines = new LineScanner(/\r(?!\n)/.test(text) ? text.replace(/\r+\n?/g, '\n') : text);
  for (let count = 0; ; count++) {
    const code = lines.next();
    if (code === null) break;
    const value = lines.next();
    const group = Number(code);
    if (value === null && code.trim() === '') break;
    if (code.trim() === '' || !Number.isInteger(group) || value === null) {
      throw new AppError(
        'badDrawing',
        `line ${lines.line}: "${code.slice(0, 40)}" is no group code; this is no DXF, or it is cut off`,
      );
    }
    if (group === 0) {
      current = { type: value.trim().toUpperCase(), codes: [], values: [], line: lines.line };
      records.push(current);
    } else if (group !== 999) {
      current?.codes.push(group);
      current?.values.push(value);
    }
    if (count % 20_000 === 0) onProgress?.(lines.share);
  }
  if (records[0]?.type !== 'SECTION') {
    throw new AppError('badDrawing', 'line 1: a DXF begins with a section; this file does not');
  }
  return records;
}

/**
 * The first value of a group code as text, or `null`.
 *
 * @example textOf({ type: 'LINE', codes: [8], values: ['cut'], line: 1 }, 8) // 'cut'
 */
export function textOf(record: DxfRecord, code: number): string | null {
  const index = record.codes.indexOf(code);
  return index < 0 ? null : itemAt(record.values, index).trim();
}

/**
 * The first value of a group code as a number. @throws AppError `badDrawing` when it is none
 *
 * @example numberOf({ type: 'LINE', codes: [], values: [], line: 1 }, 10, 5) // 5
 */
export function numberOf(record: DxfRecord, code: number, fallback: number): number {
  const index = record.codes.indexOf(code);
  return index < 0 ? fallback : toNumber(record, index);
}

/**
 * All values of a group code as numbers, in order. @throws AppError `badDrawing` when one is none
 *
 * @example numbersOf({ type: 'LINE', codes: [10], values: ['1.5'], line: 1 }, 10) // [1.5]
 */
export function numbersOf(record: DxfRecord, code: number): readonly number[] {
  return record.codes.flatMap((one, index) => (one === code ? [toNumber(record, index)] : []));
}

function toNumber(record: DxfRecord, index: number): number {
  const text = itemAt(record.values, index);
  const value = Number(text);
  if (text.trim() !== '' && Number.isFinite(value)) return value;
  throw new AppError(
    'badDrawing',
    `line ${record.line}: ${record.type} has "${text.trim().slice(0, 40)}" where a number belongs`,
  );
}

class LineScanner {
  line = 0;
  private at = 0;

  constructor(private readonly text: string) {}

  get share(): number {
    return this.at / Math.max(1, this.text.length);
  }

  next(): string | null {
    if (this.at >= this.text.length) return null;
    const found = this.text.indexOf('\n', this.at);
    const end = found < 0 ? this.text.length : found;
    const isReturn = this.text.charCodeAt(end - 1) === 13;
    const line = this.text.slice(this.at, isReturn ? end - 1 : end);
    this.at = end + 1;
    this.line++;
    return line;
  }
}
