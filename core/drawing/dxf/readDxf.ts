import { frameContours } from '#core/drawing/frameContours.ts';
import { dxfColour } from '#core/drawing/dxf/dxfColour.ts';
import { numberOf, readDxfGroups, textOf, type DxfRecord } from '#core/drawing/dxf/dxfGroups.ts';
import { DxfWalker, type DxfBlock, type DxfLayer } from '#core/drawing/dxf/dxfWalker.ts';
import { MAX_DRAWING_LENGTH, type Drawing, type ReadProgress } from '#core/drawing/drawing.ts';
import { Tally } from '#core/drawing/tally.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { MM_PER_INCH } from '#core/units/length.ts';
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
  const leftOut = new Tally();
  const { mmPerUnit, likelyScale } = readUnit(sections.get('HEADER') ?? [], leftOut);
  const entities = sections.get('ENTITIES') ?? [];
  const ground = findGround(entities, mmPerUnit);
  const toMm = [mmPerUnit, 0, 0, -mmPerUnit, -ground.x * mmPerUnit, ground.y * mmPerUnit] as const;
  const walk = (isPaper: boolean, tally: Tally) => {
    const layers = readLayers(sections.get('TABLES') ?? []);
    const walker = new DxfWalker(layers, readBlocks(sections.get('BLOCKS') ?? []), tally, isPaper);
    walker.walk(entities, toMm);
    return walker;
  };
  let walker = walk(false, leftOut);
  // A drawing that was made on the sheet alone is read from there.
  if (walker.contours.length === 0 && walker.onPaper > 0) walker = walk(true, new Tally());
  else if (walker.onPaper > 0) leftOut.add('lines on a layout sheet (paper space)', walker.onPaper);
  onProgress?.(1);
  const { contours, idsGiven } = walker;
  return { ...frameContours(contours, leftOut.list()), idsGiven, ...(likelyScale ? { likelyScale } : {}) };
}

/** Coordinates further from their origin than this are moved to it before they are read, mm. */
const FAR_MM = 1e5;

/** Where a drawing lies that was made far from its origin, as maps are: the middle of what its entities begin at. */
function findGround(entities: readonly DxfRecord[], mmPerUnit: number): PointMm {
  const middleOf = (code: number) => {
    const values = entities.flatMap((record) => {
      const index = record.type === 'SECTION' ? -1 : record.codes.indexOf(code);
      const value = index < 0 ? NaN : Number(record.values[index]);
      return Number.isFinite(value) ? [value] : [];
    });
    return values.sort((a, b) => a - b)[values.length >> 1] ?? 0;
  };
  const ground = { x: middleOf(10), y: middleOf(20) };
  return Math.hypot(ground.x, ground.y) * mmPerUnit > FAR_MM ? ground : { x: 0, y: 0 };
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

/**
 * The header is one record: variable names under 9, each followed by its value. Where no unit is named, inches are
 * likely if it measures as the English do; figures are mm as they always were, and whoever opens the file is told.
 */
function readUnit(
  [header]: readonly DxfRecord[],
  leftOut: Tally,
): { readonly mmPerUnit: number; readonly likelyScale: number | null } {
  const valueOf = (name: string): number | null => {
    const named = header?.values.findIndex(
      (value, index) => header.codes[index] === 9 && value.trim().toUpperCase() === name,
    );
    return named === undefined || named < 0 ? null : Number(header?.values[named + 1]);
  };
  const mm = MM_PER_UNIT[valueOf('$INSUNITS') ?? 0];
  if (mm !== undefined) return { mmPerUnit: mm, likelyScale: null };
  const measurement = valueOf('$MEASUREMENT');
  if (measurement === 1) return { mmPerUnit: 1, likelyScale: null };
  if (measurement === 0) {
    leftOut.add('a unit (the file names none, and measures in inches: look at the size)');
    return { mmPerUnit: 1, likelyScale: MM_PER_INCH };
  }
  leftOut.add('a unit (the file names none that is known: figures are read as mm)');
  return { mmPerUnit: 1, likelyScale: null };
}

function readLayers(records: readonly DxfRecord[]): Map<string, DxfLayer> {
  const layers = new Map<string, DxfLayer>();
  for (const record of records) {
    if (record.type !== 'LAYER') continue;
    const colour = numberOf(record, 62, 7);
    const name = textOf(record, 2) ?? '0';
    layers.set(name.toUpperCase(), {
      name,
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
      blocks.set((textOf(record, 2) ?? '').toUpperCase(), { base, entities });
    } else if (record.type !== 'ENDBLK') entities.push(record);
  }
  return blocks;
}
