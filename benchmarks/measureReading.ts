import { SaxesParser } from 'saxes';
import { EMOJI_SETS, openDrawings, type OpenDrawing } from '#benchmarks/openSets/openDrawings.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { seededRandom } from '#core/random/seededRandom.ts';

/** How long reading took beside the bare parse, the least of several rounds. */
export interface ReadMeasure {
  readonly name: string;
  readonly megabytes: number;
  readonly lines: number;
  readonly bareMs: number;
  readonly readMs: number;
  readonly rounds: number;
}

const ROUNDS = 7;

export function sheetOfIcons(icons: readonly string[]): string {
  const bodies = icons.map((text, index) => {
    const inside = text.slice(text.indexOf('>', text.indexOf('<svg')) + 1, text.lastIndexOf('</svg>'));
    return `<g transform="translate(${(index % 40) * 30} ${Math.floor(index / 40) * 30})" fill="none" stroke="#000">${inside}</g>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="1200mm" height="1200mm" viewBox="0 0 1200 1200">${bodies.join('').repeat(3)}</svg>`;
}

export function sheetOfCurves(): string {
  const random = seededRandom(3);
  const figure = () => (random() * 40 - 20).toFixed(3);
  const path = () =>
    `<path d="M100 100${Array.from({ length: 200 }, () => `c${figure()} ${figure()} ${figure()} ${figure()} ${figure()} ${figure()}`).join('')}z"/>`;
  return wrap(Array.from({ length: 250 }, path).join(''));
}

export function sheetOfPolygons(): string {
  const random = seededRandom(4);
  const figure = () => (random() * 1000).toFixed(2);
  const path = () =>
    `<path d="M${Array.from({ length: 300 }, () => `${figure()},${figure()}`).join(' ')}z"/>`;
  return wrap(Array.from({ length: 500 }, path).join(''));
}

export function sheetOfPaths(): string {
  const random = seededRandom(6);
  const figure = () => (random() * 990).toFixed(2);
  const path = () => `<path d="M${figure()} ${figure()}h4v4c-1 1-3 1-4 0z"/>`;
  return wrap(Array.from({ length: 100_000 }, path).join('\n'));
}

/** How large the mixed files are. */
const MIXED_MEGABYTES = [3, 4, 5, 7, 9] as const;

/** Emoji of three open sets, mixed and each set alone: gradients, filters, clips and style come with them. */
export function sheetsOfEmoji(): readonly { readonly name: string; readonly text: string }[] {
  const [noto, fluent, open] = EMOJI_SETS.map((set) => openDrawings(set, 400));
  const sheet = (drawings: readonly OpenDrawing[], megabytes: number) => {
    const bodies: string[] = [];
    for (let at = 0, length = 0; length < megabytes * 1e6; at++) {
      const { body, width } = drawings[at % drawings.length] as OpenDrawing;
      const place = `translate(${(at % 30) * 33} ${Math.floor(at / 30) * 33}) scale(${30 / width})`;
      bodies.push(`<g transform="${place}">${body}</g>`);
      length += body.length;
    }
    return `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="1000mm" height="1000mm" viewBox="0 0 1000 1000">${bodies.join('')}</svg>`;
  };
  // Other drawings of each set in every file.
  const mixed = MIXED_MEGABYTES.map((megabytes, file) => ({
    name: `mixed emoji, ${megabytes} MB`,
    text: sheet(
      [noto, fluent, open].flatMap((set) => (set ?? []).slice(file * 70, file * 70 + 70)),
      megabytes,
    ),
  }));
  return [
    ...mixed,
    { name: 'emoji with gradients alone', text: sheet(noto ?? [], 3) },
    { name: 'emoji with filters alone', text: sheet(fluent ?? [], 5) },
    { name: 'emoji with strokes alone', text: sheet(open ?? [], 3) },
  ];
}

function wrap(body: string): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="1000mm" height="1000mm" viewBox="0 0 1000 1000" fill="none" stroke="#000">${body}</svg>`;
}

export function measureReading(name: string, text: string): ReadMeasure {
  let [bareMs, readMs, lines] = [Infinity, Infinity, 0];
  for (let round = 0; round < ROUNDS; round++) {
    bareMs = Math.min(
      bareMs,
      time(() => bareParse(text)),
    );
    readMs = Math.min(
      readMs,
      time(() => (lines = readSvg(text).contours.length)),
    );
  }
  return { name, megabytes: text.length / 1e6, lines, bareMs, readMs, rounds: ROUNDS };
}

function bareParse(text: string): void {
  let elements = 0;
  const parser = new SaxesParser();
  parser.on('opentag', () => elements++);
  parser.write(text).close();
}

/** How long something takes, ms. */
export function time(act: () => unknown): number {
  const started = performance.now();
  act();
  return performance.now() - started;
}
