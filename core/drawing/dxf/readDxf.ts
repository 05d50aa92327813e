import { frameContours } from '#core/drawing/frameContours.ts';
import { dxfColour } from '#core/drawing/dxf/dxfColour.ts';
import { numberOf, readDxfGroups, textOf, type DxfRecord } from '#core/drawing/dxf/dxfGroups.ts';
import { DxfWalker, type DxfBlock, type DxfLayer } from '#core/drawing/dxf/dxfWalker.ts';
import { MAX_DRAWING_LENGTH, type Drawing, type ReadProgress } from '#core/drawing/drawing.ts';
import { AppError } from '#core/errors/appError.ts';

/** Millimetres per drawing unit by the header's `$INSUNITS`. Source: DXF reference, header variables. */
const MM_PER_UNIT: Readonly<Record<number, number>> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 25.4e-6,
  9: 0.0254,
  10: 914.4,
  13: 0.001,
  14: 100,
};

/**
 * Reads a DXF drawing (text form): lines, arcs, circles, ellipses, polylines with bulges, splines and blocks, with
 * layers, colours and line types. The drawing is as large as its lines; y is turned downwards.
 *
 * @param text the whole file
 * @throws AppError `badDrawing` with line and reason: no DXF, binary, numbers that are none, blocks within themselves, no
 *   lines; `tooLarge` above 50 million characters or 100,000 lines
 * @example readDxf('0\nSECTION\n2\nENTITIES\n0\nLINE\n10\n0\n20\n0\n11\n5\n21\n0\n0\nENDSEC\n0\nEOF').contours.length // 1
 */
export function readDxf(text: string, onProgress?: ReadProgress): Drawing {
  if (text.length > MAX_DRAWING_LENGTH) {
    throw new AppError(
      'tooLarge',
      `the drawing has ${text.length} characters; at most ${MAX_DRAWING_LENGTH} are read`,
    );
  }
  const records = readDxfGroups(text, (share) => onProgress?.(share * 0.7));
  const sections = splitSections(records);
  const leftOut = new Set<string>();
  const mmPerUnit = readUnit(sections.get('HEADER') ?? [], leftOut);
  const layers = readLayers(sections.get('TABLES') ?? []);
  const walker = new DxfWalker(layers, readBlocks(sections.get('BLOCKS') ?? []), leftOut);
  walker.walk(sections.get('ENTITIES') ?? [], [mmPerUnit, 0, 0, -mmPerUnit, 0, 0]);
  onProgress?.(1);
  return frameContours(walker.contours, leftOut);
}

function splitSections(records: readonly DxfRecord[]): ReadonlyMap<string, readonly DxfRecord[]> {
  const sections = new Map<string, DxfRecord[]>();
  let current: DxfRecord[] | null = null;
  for (const record of records) {
    if (record.type === 'SECTION') {
      current = [record];
      sections.set(textOf(record, 2) ?? '', current);
    } else if (record.type === 'ENDSEC') current = null;
    else current?.push(record);
  }
  return sections;
}

/** The header is one record: variable names under 9, each followed by its value. */
function readUnit([header]: readonly DxfRecord[], leftOut: Set<string>): number {
  const named = header?.values.findIndex(
    (value, index) => header.codes[index] === 9 && value.trim() === '$INSUNITS',
  );
  const unit = named === undefined || named < 0 ? 0 : Number(header?.values[named + 1]);
  const mm = MM_PER_UNIT[unit];
  if (mm === undefined) leftOut.add('a unit (the file names none that is known: figures are read as mm)');
  return mm ?? 1;
}

function readLayers(records: readonly DxfRecord[]): ReadonlyMap<string, DxfLayer> {
  const layers = new Map<string, DxfLayer>();
  for (const record of records) {
    if (record.type !== 'LAYER') continue;
    const colour = numberOf(record, 62, 7);
    layers.set(textOf(record, 2) ?? '0', {
      colour: dxfColour(Math.abs(colour)),
      lineType: textOf(record, 6) ?? 'CONTINUOUS',
      isShown: colour >= 0 && (numberOf(record, 70, 0) & 1) === 0,
    });
  }
  return layers;
}

function readBlocks(records: readonly DxfRecord[]): ReadonlyMap<string, DxfBlock> {
  const blocks = new Map<string, DxfBlock>();
  let entities: DxfRecord[] = [];
  for (const record of records) {
    if (record.type === 'BLOCK') {
      entities = [];
      const base = { x: numberOf(record, 10, 0), y: numberOf(record, 20, 0) };
      blocks.set(textOf(record, 2) ?? '', { base, entities });
    } else if (record.type !== 'ENDBLK') entities.push(record);
  }
  return blocks;
}
