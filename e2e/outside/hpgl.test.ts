import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { PNG } from 'pngjs';
import { afterAll, describe, expect, it } from 'vitest';
import { groupLines, type Role } from '#core/drawing/lineRoles.ts';
import { readSvg } from '#core/drawing/readSvg.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import { PLAIN_EQUIPMENT } from '#core/station/machine.ts';
import { sampleDesign, samplePlan } from '#core/tests/sampleJob.ts';
import { writeHpgl } from '#core/protocol/writeHpgl.ts';
import { drawHpgl, drawSvg } from '#e2e/support/drawFiles.ts';

/** Our machine file drawn by hp2xx, against the drawing itself drawn by librsvg: two programs that never met. */
const folder = mkdtempSync(join(tmpdir(), 'feather-hpgl-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const DOTS_PER_MM = 10;
const icons = join(dirname(createRequire(import.meta.url).resolve('lucide-static/package.json')), 'icons');
const demo = (name: string) =>
  readFileSync(new URL(`../../demo/drawings/${name}.svg`, import.meta.url), 'utf8');
const icon = (name: string) =>
  readFileSync(join(icons, `${name}.svg`), 'utf8')
    .replace('width="24"', 'width="90mm"')
    .replace('height="24"', 'height="90mm"');

const DRAWINGS: readonly (readonly [string, string])[] = [
  ['crate stencil', demo('crate-stencil')],
  ['tide stickers', demo('tide-stickers')],
  ['fish, an icon', icon('fish')],
  ['anchor, an icon', icon('anchor')],
  ['cherry, an icon', icon('cherry')],
];

interface Picture {
  readonly width: number;
  readonly height: number;
  readonly isInk: (x: number, y: number) => boolean;
}

function readPicture(file: string): Picture {
  const { width, height, data } = PNG.sync.read(readFileSync(file));
  return { width, height, isInk: (x, y) => (data[4 * (y * width + x)] ?? 255) < 128 };
}

/** The ink of a picture, moved so that its box starts at 0, 0. */
function inkOf(picture: Picture): {
  readonly points: readonly (readonly [number, number])[];
  readonly size: readonly [number, number];
} {
  const points: [number, number][] = [];
  for (let y = 0; y < picture.height; y++)
    for (let x = 0; x < picture.width; x++) if (picture.isInk(x, y)) points.push([x, y]);
  const left = points.reduce((least, [x]) => Math.min(least, x), Infinity);
  const top = points.reduce((least, [, y]) => Math.min(least, y), Infinity);
  const moved = points.map(([x, y]) => [x - left, y - top] as const);
  const right = moved.reduce((most, [x]) => Math.max(most, x), 0);
  const bottom = moved.reduce((most, [, y]) => Math.max(most, y), 0);
  return { points: moved, size: [right + 1, bottom + 1] };
}

/** The share of points that have a point of the other set within `reach` pixels. */
function shareNear(
  points: readonly (readonly [number, number])[],
  others: readonly (readonly [number, number])[],
  reach: number,
): number {
  const near = new Set<number>();
  for (const [x, y] of others) {
    for (let dx = -reach; dx <= reach; dx++)
      for (let dy = -reach; dy <= reach; dy++) near.add((x + dx) * 100_000 + y + dy);
  }
  return points.filter(([x, y]) => near.has(x * 100_000 + y)).length / points.length;
}

describe('the machine file drawn by hp2xx', () => {
  it.each(DRAWINGS)('shows %s as librsvg draws it: same size, every line within 0.2 mm', (name, svg) => {
    const drawing = readSvg(svg);
    const roles: Record<string, Role> = Object.fromEntries(
      groupLines(drawing).map((group) => [group.key, 'kiss']),
    );
    const sheet = { name: 'test', widthMm: 200, heightMm: 150, marginMm: 0 };
    const design = sampleDesign(svg, roles, { xMm: 20, yMm: 20 }, { sheet });
    const { lines: placed } = layOutJob(design, PLAIN_EQUIPMENT).sheets[0]!;
    const values = { force: 80, exposureMm: 0.3, speed: 20, passes: 1, offsetMm: 0.25, overcutMm: 0 };
    const plan = samplePlan(placed, roles, { kiss: values }, { sheetHeightMm: sheet.heightMm });
    const stem = join(folder, name.replace(/\W+/g, '-'));
    writeFileSync(
      `${stem}.hpgl`,
      writeHpgl(plan.passes, sheet.heightMm, { unitsPerMm: 40, carriesNumbers: true }),
    );
    drawHpgl(`${stem}.hpgl`, `${stem}-hp.png`, DOTS_PER_MM);
    const lines = placed.map((line) => `<path d="${writePathData(line.contour)}"/>`).join('');
    const page = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="150mm" viewBox="0 0 200 150"><rect width="200" height="150" fill="white"/><g fill="none" stroke="black" stroke-width="0.13">${lines}</g></svg>`;
    writeFileSync(`${stem}.svg`, page);
    drawSvg(`${stem}.svg`, `${stem}-svg.png`, DOTS_PER_MM);
    const cut = inkOf(readPicture(`${stem}-hp.png`));
    const drawn = inkOf(readPicture(`${stem}-svg.png`));
    expect(Math.abs(cut.size[0] - drawn.size[0])).toBeLessThanOrEqual(3);
    expect(Math.abs(cut.size[1] - drawn.size[1])).toBeLessThanOrEqual(3);
    expect(shareNear(cut.points, drawn.points, 2)).toBeGreaterThan(0.99);
    expect(shareNear(drawn.points, cut.points, 2)).toBeGreaterThan(0.99);
  });
});
