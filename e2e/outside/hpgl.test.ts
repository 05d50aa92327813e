import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { groupLines, type Role } from '#core/drawing/roles/lineRoles.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import { PLAIN_EQUIPMENT } from '#core/station/machine.ts';
import { plotterFile, sampleDesign, samplePlan } from '#core/tests/sampleJob.ts';
import { readHpgl } from '#core/protocol/hpgl/readHpgl.ts';
import { writeMachineFile } from '#core/protocol/machineFile.ts';
import { compareInk } from '#e2e/support/compareInk.ts';
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
    writeFileSync(`${stem}.hpgl`, writeMachineFile(plan.passes, sheet.heightMm, plotterFile()));
    drawHpgl(`${stem}.hpgl`, `${stem}-hp.png`, DOTS_PER_MM);
    const lines = placed.map((line) => `<path d="${writePathData(line.contour)}"/>`).join('');
    const page = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="150mm" viewBox="0 0 200 150"><rect width="200" height="150" fill="white"/><g fill="none" stroke="black" stroke-width="0.13">${lines}</g></svg>`;
    writeFileSync(`${stem}.svg`, page);
    drawSvg(`${stem}.svg`, `${stem}-svg.png`, DOTS_PER_MM);
    const { sizeDiff, shareOfFirst, shareOfSecond } = compareInk(`${stem}-hp.png`, `${stem}-svg.png`, 2);
    expect(sizeDiff).toBeLessThanOrEqual(3);
    expect(shareOfFirst).toBeGreaterThan(0.99);
    expect(shareOfSecond).toBeGreaterThan(0.99);
  });
});

/** Plots of forms that we read and never write, drawn from what we read of them. */
const PLOTS: readonly (readonly [string, string])[] = [
  [
    'an encoded polyline',
    `IN;SP1;PE<=${encode(400)}${encode(400)}${encode(1600)}${encode(0)}${encode(-300)}${encode(900)}${encode(-1300)}${encode(-900)};`,
  ],
  ['a scaled plot', 'IN;SP1;IP400,400,3400,2400;SC0,30,0,20;PU0,0;PD30,0,30,20,0,20,0,0,30,20;PU15,10;CI5;'],
  [
    'polygons and wedges',
    'IN;SP1;PU400,400;PM0;PD2000,400,1200,1600;PM2;EP;PU2600,1000;EW600,30,200;PU400,1800;EA1000,2200;',
  ],
];

/** A figure of an encoded polyline in eight bits, as the reference has it. */
function encode(value: number): string {
  let rest = value < 0 ? -2 * value + 1 : 2 * value;
  let text = '';
  for (; rest >= 64; rest = Math.floor(rest / 64)) text += String.fromCharCode(63 + (rest % 64));
  return text + String.fromCharCode(191 + rest);
}

describe('a plot of another program, read by us', () => {
  it.each(PLOTS)('shows %s as hp2xx draws it', (name, plot) => {
    const stem = join(folder, name.replace(/\W+/g, '-'));
    writeFileSync(`${stem}.hpgl`, Buffer.from(plot, 'latin1'));
    drawHpgl(`${stem}.hpgl`, `${stem}-hp.png`, DOTS_PER_MM);
    const { contours, widthMm, heightMm } = readHpgl(plot);
    const lines = contours.map(({ contour }) => `<path d="${writePathData(contour)}"/>`).join('');
    const page = `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm + 2}mm" height="${heightMm + 2}mm" viewBox="-1 -1 ${widthMm + 2} ${heightMm + 2}"><rect x="-1" y="-1" width="100%" height="100%" fill="white"/><g fill="none" stroke="black" stroke-width="0.13">${lines}</g></svg>`;
    writeFileSync(`${stem}.svg`, page);
    drawSvg(`${stem}.svg`, `${stem}-svg.png`, DOTS_PER_MM);
    const { sizeDiff, shareOfFirst, shareOfSecond } = compareInk(`${stem}-hp.png`, `${stem}-svg.png`, 2);
    expect(sizeDiff).toBeLessThanOrEqual(3);
    expect(shareOfFirst).toBeGreaterThan(0.99);
    expect(shareOfSecond).toBeGreaterThan(0.99);
  });
});
