import type { DrawingFormat } from '#core/drawing/drawing.ts';

/** Only for tests and benchmarks: files that mean far more work than their size says. */
export const svg = (inside: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="60mm" viewBox="0 0 90 60">${inside}</svg>`;
export const line = '<path d="M1 1H9"/>';
const times = (count: number, one: (index: number) => string) =>
  Array.from({ length: count }, (_, index) => one(index)).join('');
const doubling = `<defs>${times(23, (n) => `<g id="g${n + 1}"><use href="#g${n}"/><use href="#g${n}"/></g>`)}<g id="g0">${line}</g></defs><use href="#g23"/>`;
export const pairs = (...all: readonly (string | number)[]) => `${all.join('\n')}\n`;
export const entities = (body: string, more = '') =>
  `${more}${pairs(0, 'SECTION', 2, 'ENTITIES')}${body}${pairs(0, 'ENDSEC', 0, 'EOF')}`;
const spline = (degree: number, count: number) =>
  pairs(0, 'SPLINE', 71, degree) +
  times(count + degree + 1, (n) => pairs(40, Math.min(Math.max(0, n - degree), count - degree))) +
  times(count, (n) => pairs(10, n % 97, 20, n % 89));
const nestedBlocks = `${pairs(0, 'SECTION', 2, 'BLOCKS')}${times(20, (n) => pairs(0, 'BLOCK', 2, `B${n + 1}`, 0, 'INSERT', 2, `B${n}`, 0, 'INSERT', 2, `B${n}`, 0, 'ENDBLK'))}${pairs(0, 'BLOCK', 2, 'B0', 0, 'TEXT', 1, 'x', 0, 'ENDBLK')}${pairs(0, 'ENDSEC')}`;

export const HEAVY_FILES: readonly (readonly [words: string, format: DrawingFormat, text: string])[] = [
  ['symbols that double 23 times', 'svg', svg(doubling)],
  [
    'four thousand rules for four thousand elements',
    'svg',
    svg(
      `<style>${times(4000, (n) => `path.c${n}{fill:red}*{stroke:blue}`)}</style>${times(4000, () => line)}`,
    ),
  ],
  ['comments that never end', 'svg', svg(`<style>${'/*'.repeat(200_000)}</style>${line}`)],
  ['at-signs without a rule', 'svg', svg(`<style>${'@'.repeat(300_000)}</style>${line}`)],
  ['a style sheet without a brace', 'svg', svg(`<style>${'a'.repeat(500_000)}</style>${line}`)],
  ['a million arcs', 'svg', svg(`<path d="M1 1${times(1_000_000, (n) => `a9 9 0 1 1 ${n % 7} 3`)}"/>`)],
  ['six million segments', 'svg', svg(`<path d="M1 1${'h1v1h-1v-1'.repeat(1_500_000)}"/>`)],
  [
    'a long style drawn again and again',
    'svg',
    svg(
      `<defs><g id="s"><path style="${'a:b;'.repeat(20_000)}" d="M1 1H9"/></g></defs>${times(20_000, () => '<use href="#s"/>')}`,
    ),
  ],
  ['an arc that turns ten thousand million degrees', 'hpgl', 'IN;PU0,0;PD;AA100,100,9999999999,5;'],
  ['a million small arcs', 'hpgl', `IN;PU0,0;PD;${'AR9,9,700;'.repeat(400_000)}`],
  ['a spline of degree 2000', 'dxf', entities(spline(2000, 4000))],
  ['a spline of degree 25 with 60,000 points', 'dxf', entities(spline(25, 60_000))],
  ['a spline of degree 3 with 60,000 points', 'dxf', entities(spline(3, 60_000))],
  ['blocks that double twenty times', 'dxf', entities(pairs(0, 'INSERT', 2, 'B20'), nestedBlocks)],
  [
    'a block inserted a million times',
    'dxf',
    entities(pairs(0, 'INSERT', 2, 'B0', 70, 1000, 71, 1000, 44, 1, 45, 1), nestedBlocks),
  ],
];
