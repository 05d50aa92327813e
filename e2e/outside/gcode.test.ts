import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import fc from 'fast-check';
import { afterAll, describe, expect, it } from 'vitest';
import { groupLines, type Role } from '#core/drawing/roles/lineRoles.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import type { CutPass, FileOptions } from '#core/program/cutProgram.ts';
import { writeBlocks, writeMachineFile } from '#core/protocol/machineFile.ts';
import { PLAIN_EQUIPMENT } from '#core/station/machine.ts';
import { sampleDesign, samplePlan } from '#core/tests/sampleJob.ts';
import { GcodeDecoder } from '#devices/cutter/decodeGcode.ts';
import type { Instruction, Spot } from '#devices/cutter/instruction.ts';
import { compareInk } from '#e2e/support/compareInk.ts';
import { drawSvg } from '#e2e/support/drawFiles.ts';

/**
 * Our G-code read by an interpreter that was written apart from it, after NISTIR 6556, and drawn: against the drawing
 * itself, both by librsvg.
 */
const folder = mkdtempSync(join(tmpdir(), 'feather-gcode-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const DOTS_PER_MM = 10;
const icons = join(dirname(createRequire(import.meta.url).resolve('lucide-static/package.json')), 'icons');
const icon = (name: string) =>
  readFileSync(join(icons, `${name}.svg`), 'utf8')
    .replace('width="24"', 'width="90mm"')
    .replace('height="24"', 'height="90mm"');
const demo = (name: string) =>
  readFileSync(new URL(`../../demo/drawings/${name}.svg`, import.meta.url), 'utf8');

const fileOf = (options: object = {}, change: Partial<FileOptions> = {}): FileOptions => ({
  language: { id: 'gcode', options: { settleSeconds: 0, ...options } },
  carries: { force: true, speed: true },
  mmPerSPerUnit: 1,
  ...change,
});

/** What an interpreter makes of a file: strokes with the force and the speed they are drawn at. */
function interpret(text: string) {
  const decoder = new GcodeDecoder();
  const instructions = text
    .trimEnd()
    .split('\n')
    .flatMap((line) => decoder.read(line).instructions);
  const strokes: { path: Spot[]; force: number | null; speed: number | null }[] = [];
  let at: Spot = { xMm: 0, yMm: 0 };
  let [force, speed]: [number | null, number | null] = [null, null];
  let stroke: (typeof strokes)[number] | null = null;
  const act: Readonly<Partial<Record<Instruction['kind'], (instruction: never) => void>>> = {
    force: ({ value }: Extract<Instruction, { kind: 'force' }>) => (force = value),
    speed: ({ value }: Extract<Instruction, { kind: 'speed' }>) => (speed = value),
    travel: ({ points }: Extract<Instruction, { kind: 'travel' }>) => (at = points.at(-1) ?? at),
    press: () => {
      if (stroke && stroke.path.length > 1) strokes.push(stroke);
      stroke = { path: [at], force, speed: null };
    },
    draw: ({ to }: Extract<Instruction, { kind: 'draw' }>) => {
      at = to;
      stroke?.path.push(to);
      if (stroke) stroke.speed = speed;
    },
    lift: () => {
      if (stroke && stroke.path.length > 1) strokes.push(stroke);
      stroke = null;
    },
  };
  for (const instruction of instructions) act[instruction.kind]?.(instruction as never);
  return { strokes, instructions };
}

describe('our G-code, interpreted and drawn', () => {
  it.each([
    ['crate stencil', demo('crate-stencil'), {}],
    ['fish, an icon', icon('fish'), { tool: 'height' }],
    ['anchor, an icon', icon('anchor'), {}],
  ])('shows %s as librsvg draws it: same size, every line within 0.2 mm', (name, svg, options) => {
    const drawing = readSvg(svg);
    const roles: Record<string, Role> = Object.fromEntries(
      groupLines(drawing).map((group) => [group.key, 'kiss']),
    );
    const sheet = { name: 'test', widthMm: 200, heightMm: 150, marginMm: 0 };
    const { lines: placed } = layOutJob(
      sampleDesign(svg, roles, { xMm: 20, yMm: 20 }, { sheet }),
      PLAIN_EQUIPMENT,
    ).sheets[0]!;
    const values = { force: 80, exposureMm: 0.3, speed: 20, passes: 1, offsetMm: 0.25, overcutMm: 0 };
    const plan = samplePlan(placed, roles, { kiss: values }, { sheetHeightMm: sheet.heightMm });
    const { strokes } = interpret(writeMachineFile(plan.passes, sheet.heightMm, fileOf(options)));
    const page = (paths: string) =>
      `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="150mm" viewBox="0 0 200 150"><rect width="200" height="150" fill="white"/><g fill="none" stroke="black" stroke-width="0.13">${paths}</g></svg>`;
    const cut = strokes.map(
      ({ path }) => `<path d="M${path.map(({ xMm, yMm }) => `${xMm} ${150 - yMm}`).join('L')}"/>`,
    );
    const drawn = placed.map((line) => `<path d="${writePathData(line.contour)}"/>`);
    const stem = join(folder, name.replace(/\W+/g, '-'));
    for (const [kind, paths] of [
      ['cut', cut],
      ['drawn', drawn],
    ] as const) {
      writeFileSync(`${stem}-${kind}.svg`, page(paths.join('')));
      drawSvg(`${stem}-${kind}.svg`, `${stem}-${kind}.png`, DOTS_PER_MM);
    }
    const { sizeDiff, shareOfFirst, shareOfSecond } = compareInk(`${stem}-cut.png`, `${stem}-drawn.png`, 2);
    expect(sizeDiff).toBeLessThanOrEqual(3);
    expect(shareOfFirst).toBeGreaterThan(0.99);
    expect(shareOfSecond).toBeGreaterThan(0.99);
  });

  it('draws every stroke once, at its force and its speed, whatever the strokes', () => {
    const point = fc.record({
      x: fc.double({ min: 0, max: 200, noNaN: true }),
      y: fc.double({ min: 0, max: 200, noNaN: true }),
    });
    const stroke = fc.record({
      points: fc.uniqueArray(point, {
        minLength: 2,
        maxLength: 5,
        selector: ({ x, y }) => `${x.toFixed(2)} ${y.toFixed(2)}`,
      }),
      isTab: fc.boolean(),
    });
    const pass = fc.record({
      values: fc.record({
        force: fc.integer({ min: 20, max: 800 }),
        tabForce: fc.integer({ min: 20, max: 800 }),
        speed: fc.integer({ min: 5, max: 300 }),
      }),
      strokes: fc.array(stroke, { minLength: 1, maxLength: 5 }),
    });
    fc.assert(
      fc.property(
        fc.array(pass, { minLength: 1, maxLength: 3 }),
        fc.constantFrom('force', 'height'),
        (passes, tool) => {
          const blocks = writeBlocks(passes as CutPass[], 200, fileOf({ tool }, { mmPerSPerUnit: 2 }));
          const { strokes } = interpret(blocks.map(({ text }) => text).join(''));
          const wanted = passes.flatMap(({ values, strokes: all }) => all.map((one) => ({ ...one, values })));
          expect(strokes).toHaveLength(wanted.length);
          for (const [index, { points, isTab, values }] of wanted.entries()) {
            const { path, force, speed } = strokes[index]!;
            expect(path).toHaveLength(points.length);
            for (const [at, { x, y }] of points.entries()) {
              expect(path[at]!.xMm).toBeCloseTo(x, 2);
              expect(path[at]!.yMm).toBeCloseTo(200 - y, 2);
            }
            if (tool === 'force') expect(force).toBe(isTab ? values.tabForce : values.force);
            expect(speed).toBeCloseTo(values.speed * 2, 3);
          }
          // A stroke is acknowledged by the dwell after its lift: never before its own lines are out.
          expect(blocks.at(-1)!.strokesDone).toBe(wanted.length);
          for (const [index, block] of blocks.entries()) {
            expect(block.strokesDone).toBeGreaterThanOrEqual(blocks[index - 1]?.strokesDone ?? 0);
            if (block.strokesDone > (blocks[index - 1]?.strokesDone ?? 0))
              expect(block.text).toMatch(/^G4 P/);
          }
        },
      ),
      { seed: 6556, numRuns: 200 },
    );
  });

  it('uses lines of at most 256 characters and words that NISTIR 6556 names', () => {
    const text = writeMachineFile(
      [
        {
          values: { force: 90, speed: 100 },
          strokes: [
            {
              points: [
                { x: 0, y: 0 },
                { x: 1e3 / 3, y: 0 },
              ],
              isTab: false,
            },
          ],
        },
      ],
      100,
      fileOf({ settleSeconds: 0.1 }),
    );
    expect(text).toBe(
      'G17 G21 G40 G90 G94\nM5\nG0 X0 Y100\nM3 S90\nG4 P0.1\nG1 X333.333 Y100 F6000\nM5\nG4 P0.1\nG0 X0 Y0\nM2\n',
    );
  });

  it.each([
    ['G2 X1 Y1 I1 J0', /no G2/],
    ['G1 X5', /without a feed/],
    ['hello', /cannot read/],
    ['G4', /without its seconds/],
  ])('is refused by the interpreter where it must be: %s', (line, words) => {
    expect(() => new GcodeDecoder().read(line)).toThrow(words);
  });
});
