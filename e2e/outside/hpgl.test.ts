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
