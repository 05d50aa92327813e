import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import type { Role } from '#core/drawing/roles/lineRoles.ts';
import { distanceMm } from '#core/geometry/point.ts';
import { estimateTime } from '#core/passes/estimateTime.ts';
import { extendOvercut } from '#core/passes/extendOvercut.ts';
import type { Toolpath } from '#core/passes/findInner.ts';
import { orderToolpaths } from '#core/passes/orderToolpaths.ts';
import { writeMachineFile } from '#core/protocol/machineFile.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { PLAIN_EQUIPMENT } from '#core/station/machine.ts';
import { plotterFile, sampleDesign, samplePlan } from '#core/tests/sampleJob.ts';

const plain = { isFarFirst: false, end: null, kicks: 0 };
const values = (force: number, passes = 1): SettingValues => ({
  force,
  passes,
  exposureMm: 0.35,
  speed: 100,
  offsetMm: 0.25,
  overcutMm: 0.5,
});
const source = `<svg width="100mm" height="100mm" viewBox="0 0 100 100" fill="none">
  <rect stroke="#ff0000" x="10" y="10" width="80" height="80"/>
  <circle stroke="#0000ff" cx="30" cy="30" r="8"/><circle stroke="#0000ff" cx="30" cy="30" r="4"/>
  <circle stroke="#0000ff" cx="70" cy="70" r="8"/><path stroke="#00ff00" d="M5 5H95"/></svg>`;
const drawing = readSvg(source);
const roles: Record<string, Role> = { '|#ff0000': 'through', '|#0000ff': 'kiss', '|#00ff00': 'art' };
const box = (x: number, y: number, size: number): Toolpath['points'] => [
  { x, y },
  { x: x + size, y },
  { x: x + size, y: y + size },
  { x, y: y + size },
  { x, y },
];

describe('planPasses', () => {
  const plan = samplePlan(drawing.contours, roles, { kiss: values(60), through: values(180, 2) });

  it('kisses before it cuts through, inner before outer, and leaves art alone', () => {
    expect(plan.passes.map((pass) => pass.operation)).toEqual(['kiss', 'through']);
    const kissed = plan.passes[0]!.strokes.map((stroke) => stroke.contourId);
    expect(kissed.indexOf(2)).toBeLessThan(kissed.indexOf(1));
    expect(kissed).toHaveLength(3);
  });

  it('repeats a contour for every pass of its setting', () => {
    expect(plan.passes[1]!.strokes.map((stroke) => stroke.repeat)).toEqual([0, 1]);
  });

  it('counts cut length, travel and time', () => {
    const kissMm = 2 * Math.PI * (8 + 4 + 8) + 3 * 0.5;
    expect(plan.passes[0]!.cutMm).toBeCloseTo(kissMm, 0);
    expect(plan.cutMm).toBeCloseTo(plan.passes[0]!.cutMm + plan.passes[1]!.cutMm, 9);
    expect(plan.seconds).toBeGreaterThan(plan.cutMm / 100);
    expect(plan.travelMm).toBeGreaterThan(50);
  });

  it('asks for hands only where the exposure changes', () => {
    expect(plan.passes[1]!.pauseBefore).toBeNull();
    const deeper = { ...values(180), exposureMm: 0.5 };
    const paused = samplePlan(drawing.contours, roles, { kiss: values(60), through: deeper });
    expect(paused.passes[1]!.pauseBefore).toMatch(/exposure to 0.50 mm/);
  });

  it('says what is missing', () => {
    expect(() => samplePlan(drawing.contours, roles, { kiss: values(60) })).toThrow(/no through setting/);
    expect(() => samplePlan(drawing.contours, {}, {})).toThrow(/line 1 has no role/);
    const allArt = { '|#ff0000': 'art', '|#0000ff': 'art', '|#00ff00': 'art' } as const;
    expect(() => samplePlan(drawing.contours, allArt, {})).toThrow(/no line has a cutting role/);
  });

  it('is written as HPGL with the scale values per pass and y upwards', () => {
    const options = plotterFile();
    const text = writeMachineFile(plan.passes, 100, options);
    expect(text).toMatch(/^IN;PA;SP1;\nVS100;\nFS60;PU/);
    expect(text).toContain('VS100;\nFS180;PU');
    expect(text.match(/PU/g)).toHaveLength(3 + 2 + 1);
    const ys = [...text.matchAll(/PU\d+,(\d+)/g)].map((match) => Number(match[1]));
    expect(Math.max(...ys)).toBeLessThanOrEqual(100 * 40);
    expect(writeMachineFile(plan.passes, 100, plotterFile(false))).not.toMatch(/VS|FS/);
  });
});

describe('orderToolpaths', () => {
  it('never draws a ring before what lies in it, on random nests', () => {
    const nest = fc.array(
      fc.record({
        x: fc.integer({ min: 0, max: 9 }),
        y: fc.integer({ min: 0, max: 9 }),
        depth: fc.integer({ min: 1, max: 4 }),
      }),
      { minLength: 1, maxLength: 12 },
    );
    fc.assert(
      fc.property(nest, (cells) => {
        const seen = new Set<string>();
        const routes: Toolpath[] = [];
        for (const cell of cells) {
          if (seen.has(`${cell.x}/${cell.y}`)) continue;
          seen.add(`${cell.x}/${cell.y}`);
          for (let ring = 0; ring < cell.depth; ring++) {
            const points = box(cell.x * 20 + ring, cell.y * 20 + ring, 18 - 2 * ring);
            routes.push({ contourId: routes.length, points, isClosed: true });
          }
        }
        const ordered = orderToolpaths(routes, { x: 0, y: 0 }, plain);
        expect(ordered).toHaveLength(routes.length);
        const place = new Map(ordered.map((route, index) => [route.contourId, index]));
        routes.forEach((outer, index) => {
          const inner = routes[index + 1];
          const isNested =
            inner &&
            inner.points[0]!.x === outer.points[0]!.x + 1 &&
            inner.points[0]!.y === outer.points[0]!.y + 1;
          if (isNested) expect(place.get(inner.contourId)!).toBeLessThan(place.get(outer.contourId)!);
        });
      }),
      { seed: 21, numRuns: 60 },
    );
  });

  it('travels at most as far as drawing order on a scattered sheet, here less than half', () => {
    const routes = Array.from({ length: 40 }, (_, index) => ({
      contourId: index,
      points: box(((index * 37) % 40) * 6, ((index * 23) % 40) * 6, 4),
      isClosed: true,
    }));
    const travel = (ordered: readonly Toolpath[]) =>
      ordered
        .slice(1)
        .reduce((sum, route, index) => sum + distanceMm(ordered[index]!.points.at(-1)!, route.points[0]!), 0);
    expect(travel(orderToolpaths(routes, { x: 0, y: 0 }, plain))).toBeLessThan(travel(routes) / 2);
  });

  it('enters a ring at its nearest vertex and keeps its length', () => {
    const [ring] = orderToolpaths(
      [{ contourId: 0, points: box(10, 10, 10), isClosed: true }],
      { x: 25, y: 25 },
      plain,
    );
    expect(ring!.points[0]).toEqual({ x: 20, y: 20 });
    expect(ring!.points.at(-1)).toEqual({ x: 20, y: 20 });
    expect(ring!.points).toHaveLength(5);
  });
});

describe('estimateTime', () => {
  const motion = { speedMmPerS: 100, accelerationMmPerS2: 1000 };

  it('is the textbook trapezoid on a straight line: 100 mm at 100 mm/s and 1 m/s² take 1.1 s', () => {
    expect(
      estimateTime(
        [
          { x: 0, y: 0 },
          { x: 100, y: 0 },
        ],
        motion,
      ),
    ).toBeCloseTo(1.1, 12);
  });

  it('is the textbook triangle when the top speed is not reached: 2 sqrt(s / a)', () => {
    expect(
      estimateTime(
        [
          { x: 0, y: 0 },
          { x: 4, y: 0 },
        ],
        motion,
      ),
    ).toBeCloseTo(2 * Math.sqrt(0.004), 12);
  });

  it('does not slow on a straight line with a point in it and does at a corner', () => {
    const straight = estimateTime(
      [
        { x: 0, y: 0 },
        { x: 50, y: 0 },
        { x: 100, y: 0 },
      ],
      motion,
    );
    const corner = estimateTime(
      [
        { x: 0, y: 0 },
        { x: 50, y: 0 },
        { x: 50, y: 50 },
      ],
      motion,
    );
    expect(straight).toBeCloseTo(1.1, 9);
    expect(corner).toBeGreaterThan(1.15);
    expect(estimateTime([{ x: 0, y: 0 }], motion)).toBe(0);
  });
});

describe('overcut and placement', () => {
  it('runs on past the start by the overcut, once around at most', () => {
    expect(extendOvercut(box(0, 0, 10), 2).at(-1)).toEqual({ x: 2, y: 0 });
    expect(extendOvercut(box(0, 0, 10), 0)).toHaveLength(5);
    expect(extendOvercut(box(0, 0, 1), 99).at(-1)).toEqual({ x: 0, y: 0 });
  });

  it('places by the lines, not by the empty page, and says how far they reach over', () => {
    const sheet = { name: 'small', widthMm: 100, heightMm: 120, marginMm: 5 };
    const lay = (xMm: number, yMm: number, marginMm: number) =>
      layOutJob(sampleDesign(source, roles, { xMm, yMm }, { sheet: { ...sheet, marginMm } }), PLAIN_EQUIPMENT)
        .sheets[0]!;
    const placed = lay(5, 5, 5);
    expect(placed.box!.minX).toBe(5);
    expect(placed.isInside).toBe(true);
    const { over } = lay(20, 2, 5);
    expect(over.right).toBeCloseTo(5, 9);
    expect(over.top).toBeCloseTo(3, 9);
    expect(() => lay(0, 0, 60)).toThrow(/leaves nothing/);
  });
});
