import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '#commands/homeFolder.ts';
import { readDrawing } from '#core/artwork/readDrawing.ts';
import { CSV_COLUMNS } from '#core/book/csvColumns.ts';
import type { Drawing } from '#core/drawing/drawing.ts';
import { AppError } from '#core/errors/appError.ts';
import { seededRandom, type Random } from '#core/random/seededRandom.ts';
import { readCsvBook, readJsonBook } from '#web/endpoints/book/readBookFile.ts';

/** Only for tests: files that are nearly right, read by everything that reads a file. */
export const IMPORTERS = ['svg', 'dxf', 'hpgl', 'csv', 'json'] as const;
export type Importer = (typeof IMPORTERS)[number];

/** No file of a few kilobytes may take longer, ms. */
const MOST_MS = 1_500;

const lines = (...all: readonly (string | number)[]) => `${all.join('\n')}\n`;
const DXF = lines(
  ...[0, 'SECTION', 2, 'HEADER', 9, '$INSUNITS', 70, 4, 0, 'ENDSEC', 0, 'SECTION', 2, 'BLOCKS'],
  ...[0, 'BLOCK', 2, 'B', 10, 0, 20, 0, 0, 'LINE', 8, 'x', 10, 0, 20, 0, 11, 3, 21, 4, 0, 'ENDBLK'],
  ...[0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES', 0, 'ARC', 8, 'cut', 10, 0, 20, 0, 40, 8, 50, 300, 51, 60],
  ...[0, 'INSERT', 2, 'B', 10, 5, 20, 5, 41, 2, 42, 1, 50, 30, 70, 3, 71, 2, 44, 9, 45, 7],
  ...[0, 'LWPOLYLINE', 8, 'cut', 70, 1, 10, 0, 20, 0, 42, 1, 10, 10, 20, 0, 10, 4, 20, 9],
  ...[0, 'SPLINE', 71, 3, 40, 0, 40, 0, 40, 0, 40, 0, 40, 1, 40, 1, 40, 1, 40, 1],
  ...[10, 0, 20, 0, 10, 1, 20, 2, 10, 3, 20, 2, 10, 4, 20, 0, 0, 'ENDSEC', 0, 'EOF'],
);
const HPGL = 'IN;SP1;PU0,0;PD400,0,400,400;AA200,200,90,5;CI120;EA40,40;PR;PD10,10;SP2;LT2,4;LBtext\u0003PU;';
const SVG = `<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="60mm" viewBox="0 0 90 60"><style>.cut,g path{stroke:red} #a{fill:none}</style>
<defs><symbol id="s" viewBox="0 0 9 9"><path d="M1 1H8V8a3 2 20 0 1-7 0Z"/></symbol></defs><g transform="rotate(12) scale(1.2)" class="cut"><use href="#s" x="4" y="5" width="20" height="9"/>
<rect x="1" y="2" width="9" height="8" rx="2"/><circle cx="20" cy="20" r="9"/><polygon points="0,0 9,4 3,9" stroke-dasharray="2 1"/></g></svg>`;

function seedsOf(importer: Importer): readonly string[] {
  const folder = join(ROOT, 'demo/drawings');
  switch (importer) {
    case 'svg':
      return [
        SVG,
        ...readdirSync(folder).map((name) => readFileSync(join(folder, name), 'utf8').slice(0, 20_000)),
      ];
    case 'dxf':
      return [DXF];
    case 'hpgl':
      return [HPGL];
    case 'csv': {
      const cells = [
        'Oldstrand',
        'Matt film',
        'bare',
        'Gannet',
        '45° fine',
        'kiss',
        '92',
        '0,25',
        '200',
        '1',
      ];
      return [
        `${CSV_COLUMNS.map(({ heading }) => heading).join(';')}\r\n${cells.join(';')}\r\n"a ""b""\n";;;`,
      ];
    }
    case 'json': {
      const values = { force: 90, speed: 200, passes: 1, exposureMm: 0.3, offsetMm: 0.2, overcutMm: 0.4 };
      const setting = {
        maker: 'M',
        material: 'N',
        state: 'bare',
        machine: 'G',
        blade: 'b',
        operation: 'kiss',
        values,
      };
      return [
        JSON.stringify({
          format: 'pale-feather-book',
          version: 1,
          materials: [],
          machines: [],
          settings: [setting],
        }),
      ];
    }
  }
}

const NASTY = [
  '1e400',
  '-1e308',
  'NaN',
  '0',
  '',
  '99999999999',
  '\0',
  '\u{10ffff}',
  '<',
  '{',
  '"',
  '/*',
  '#s',
  ',',
  ';',
  '-',
  '💙',
  'url(#a)',
  '1e-320',
  '</svg>',
  '\n0\n',
  'A9 9 0 1 1 0 0 ',
];

/** A file with a few places cut out, doubled, swapped or replaced. */
export function mutate(text: string, random: Random): string {
  let changed = text;
  const times = 1 + Math.floor(random() * 3);
  for (let time = 0; time < times; time++) {
    const at = Math.floor(random() * (changed.length + 1));
    const length = Math.floor(random() ** 3 * 200);
    const nasty = NASTY[Math.floor(random() * NASTY.length)] as string;
    const [before, part, after] = [
      changed.slice(0, at),
      changed.slice(at, at + length),
      changed.slice(at + length),
    ];
    const kind = Math.floor(random() * 12);
    if (kind === 0) changed = before + after;
    else if (kind === 1) changed = before + part.repeat(1 + Math.floor(random() * 20)) + after;
    else if (kind === 2) changed = before + nasty + after;
    else if (kind === 3) changed = before + nasty + part + after;
    else if (kind === 4) changed = before.slice(0, Math.floor(random() * before.length)) + part + after;
    else changed = replaceFigure(changed, at, figure(random, nasty));
    if (changed.length > 200_000) changed = changed.slice(0, 200_000);
  }
  return changed;
}

/** Mostly a figure that could stand there. */
function figure(random: Random, nasty: string): string {
  if (random() < 0.2) return nasty;
  return String(Math.round(10 ** (random() * 9 - 3) * (random() < 0.5 ? -1 : 1) * 1000) / 1000);
}

function replaceFigure(text: string, from: number, by: string): string {
  const found = /-?\d+(\.\d+)?/.exec(text.slice(from));
  if (!found) return text;
  const at = from + found.index;
  return text.slice(0, at) + by + text.slice(at + found[0].length);
}

/** What became of mutated files. */
export interface FuzzTally {
  readonly read: number;
  readonly refused: number;
  readonly slowestMs: number;
  /** What broke: another error than a refusal, a figure that is none, or too long a time; with its file. */
  readonly broken: readonly string[];
}

/** Reads so many mutated files. The same seed reads the same ones. */
export function fuzzImporter(importer: Importer, count: number, seed: number): FuzzTally {
  const random = seededRandom(seed);
  const seeds = seedsOf(importer);
  const broken: string[] = [];
  let [read, refused, slowestMs] = [0, 0, 0];
  for (let index = 0; index < count; index++) {
    const text = mutate(seeds[index % seeds.length] as string, random);
    const begun = performance.now();
    try {
      readOne(importer, text);
      read++;
    } catch (error) {
      if (error instanceof AppError) refused++;
      else broken.push(`${String(error)}: ${text.slice(0, 400)}`);
    }
    const milliseconds = performance.now() - begun;
    slowestMs = Math.max(slowestMs, milliseconds);
    if (milliseconds > MOST_MS) broken.push(`${Math.round(milliseconds)} ms: ${text.slice(0, 400)}`);
  }
  return { read, refused, slowestMs, broken };
}

function readOne(importer: Importer, text: string): void {
  if (importer === 'csv') readCsvBook(text);
  else if (importer === 'json') readJsonBook(text);
  else requireFinite(readDrawing(importer, text));
}

function requireFinite({ widthMm, heightMm, contours, images }: Drawing): void {
  const figures = [widthMm, heightMm, ...images.flatMap(({ toMm }) => toMm)];
  const widths = contours.map(({ strokeWidthMm }) => strokeWidthMm ?? 0);
  for (const list of [figures, widths, ...contours.map(({ contour }) => contour.path)]) {
    if (!list.every(Number.isFinite)) throw new Error('a figure of the drawing is not finite');
  }
}
