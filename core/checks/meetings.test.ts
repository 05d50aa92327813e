import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkMeetings } from '#core/checks/checkMeetings.ts';
import { checkFineness } from '#core/checks/checkFineness.ts';
import type { CutLine } from '#core/checks/cutLine.ts';
import { joinLines } from '#core/checks/joinLines.ts';
import type { CheckFacts } from '#core/checks/trouble.ts';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import type { DrawnContour } from '#core/drawing/drawing.ts';
import { endOf, packSegments, segmentsOf, startOf, type Segment } from '#core/geometry/contour.ts';
import { measureContour } from '#core/geometry/measureContour.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';
import { signedAreaMm2 } from '#core/geometry/polygon.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { OPERATIONS } from '#core/stack/operation.ts';

const facts: CheckFacts = {
  family: 'plainVinyl',
  isLayered: true,
  machineKind: 'matFed',
  operations: OPERATIONS,
  offsetMm: 0,
  spacingMm: 2,
};
const lineOf = (
  id: number,
  points: readonly PointMm[],
  role: CutRole = 'kiss',
  isClosed = false,
): CutLine => ({
  id,
  role,
  isClosed,
  points,
  areaMm2: isClosed ? Math.abs(signedAreaMm2(points)) : 0,
});
const ringAt = (id: number, x: number, y: number, radius: number, role: CutRole = 'kiss') =>
  lineOf(
    id,
    Array.from({ length: 49 }, (_, at) => ({
      x: x + radius * Math.cos((at * Math.PI) / 24),
      y: y + radius * Math.sin((at * Math.PI) / 24),
    })),
    role,
    true,
  );
/** Whether two segments cross, by the signs of four areas: another way than the check takes. */
const doCross = ([a, b]: readonly PointMm[], [c, d]: readonly PointMm[]) => {
  const side = (p: PointMm, q: PointMm, r: PointMm) => (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x);
  return side(a!, b!, c!) * side(a!, b!, d!) < 0 && side(c!, d!, a!) * side(c!, d!, b!) < 0;
};
/** On whole tenths, so that what nearly touches does not decide. */
const spot = fc.record({
  x: fc.integer({ min: 0, max: 1000 }).map((tenths) => tenths / 10),
  y: fc.integer({ min: 0, max: 1000 }).map((tenths) => tenths / 10),
});
/** Corners around a middle, none near another. */
const corners = fc.array(fc.integer({ min: 20, max: 60 }), { minLength: 4, maxLength: 9 }).map((radii) =>
  radii.map((radius, at): PointMm => {
    const angle = (2 * Math.PI * at) / radii.length;
    return { x: radius * Math.cos(angle), y: radius * Math.sin(angle) };
  }),
);

describe('lines that cross', () => {
  it('are exactly those whose segments do, by trying every pair', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(spot, spot), { minLength: 2, maxLength: 14 }), (ends) => {
        const lines = ends.map((points, id) => lineOf(id, points));
        const found = checkMeetings(lines, facts)
          .filter(({ kind }) => kind === 'crossing')
          .map(({ lineIds }) => [...lineIds].sort((a, b) => a - b).join('/'))
          .sort();
        const wanted = ends
          .flatMap((first, a) =>
            ends.slice(a + 1).flatMap((second, b) => (doCross(first, second) ? [`${a}/${a + 1 + b}`] : [])),
          )
          .sort();
        expect(found).toEqual(wanted);
      }),
      { seed: 81, numRuns: 150 },
    );
  });

  it('are shown where they cross, on both lines (0.001 mm)', () => {
    fc.assert(
      fc.property(spot, spot, spot, spot, (a, b, c, d) => {
        fc.pre(doCross([a, b], [c, d]));
        const [found] = checkMeetings([lineOf(0, [a, b]), lineOf(1, [c, d])], facts);
        const off = (p: PointMm, q: PointMm) =>
          distanceMm(p, found!.at) + distanceMm(found!.at, q) - distanceMm(p, q);
        expect(off(a, b)).toBeLessThan(1e-3);
        expect(off(c, d)).toBeLessThan(1e-3);
      }),
      { seed: 82, numRuns: 300 },
    );
  });
});

describe('lines that come close', () => {
  const near = (gap: number, spacingMm = 2) =>
    checkMeetings([ringAt(0, 20, 20, 10, 'through'), ringAt(1, 40 + gap, 20, 10, 'through')], {
      ...facts,
      spacingMm,
    }).filter(({ kind }) => kind === 'tooClose');

  it('are told below a mm, or below the spacing where that is less', () => {
    expect(near(0.9)).toHaveLength(1);
    expect(near(1.1)).toEqual([]);
    expect(near(0.7, 0.5)).toEqual([]);
    expect(near(0.4, 0.5)).toHaveLength(1);
  });

  it('are quiet where one lies in the other', () => {
    const inside = checkMeetings([ringAt(0, 20, 20, 10, 'through'), ringAt(1, 20, 20, 9, 'kiss')], facts);
    expect(inside.filter(({ kind }) => kind === 'crossing')).toEqual([]);
  });
});

describe('fine details', () => {
  const comb = (tooth: number): CutLine => {
    const points = [
      { x: 0, y: 0 },
      { x: 40, y: 0 },
      { x: 40, y: 20 },
      { x: 20 + tooth / 2, y: 20 },
      { x: 20 + tooth / 2, y: 40 },
      { x: 20 - tooth / 2, y: 40 },
      { x: 20 - tooth / 2, y: 20 },
      { x: 0, y: 20 },
      { x: 0, y: 0 },
    ];
    return lineOf(0, points, 'kiss', true);
  };
  const told = (line: CutLine, family: CheckFacts['family']) =>
    checkFineness([line], { ...facts, family }).filter(({ kind }) => kind === 'tooFine').length;

  it('go by the family: a tooth of 1 mm is too fine for card and not for vinyl (common practice, no source: T11)', () => {
    expect(told(comb(1), 'cardstock')).toBe(1);
    expect(told(comb(1), 'plainVinyl')).toBe(0);
    expect(told(comb(0.4), 'plainVinyl')).toBe(1);
    expect(told(comb(3), 'cardstock')).toBe(0);
  });

  it('are no matter for creases, and report how far they are', () => {
    expect(checkFineness([{ ...comb(0.2), role: 'crease' }], facts)).toEqual([]);
    const shares: number[] = [];
    checkFineness(
      Array.from({ length: 450 }, (_, id) => ringAt(id, 30 * id, 0, 8)),
      facts,
      (share) => shares.push(share),
    );
    expect(shares).toEqual([0, 200 / 450, 400 / 450]);
  });
});

describe('joining pieces of a line', () => {
  const drawn = (id: number, segments: readonly Segment[]): DrawnContour => ({
    id,
    contour: packSegments(segments, false),
    layer: null,
    strokeColour: '#000000',
    strokeWidthMm: 1,
    fillColour: null,
    dash: null,
    shape: id,
  });

  it('gives one closed outline of the same length, however it was cut up, shuffled and turned', () => {
    fc.assert(
      fc.property(corners, fc.integer({ min: 1, max: 1000 }), (around, seed) => {
        const ring = around.map((from, at): Segment => ({
          kind: 'line',
          from,
          to: around[(at + 1) % around.length]!,
        }));
        const random = seededRandom(seed);
        const pieces = ring
          .map((segment, id) =>
            drawn(id, [random() < 0.5 ? segment : { ...segment, from: segment.to, to: segment.from }]),
          )
          .map((piece) => ({ piece, rank: random() }))
          .sort((a, b) => a.rank - b.rank)
          .map(({ piece }) => piece);
        const joined = joinLines(pieces, 0.01);
        expect(joined).toHaveLength(1);
        const { contour } = joined[0]!;
        expect(contour.isClosed).toBe(true);
        const length = ring.reduce((sum, { from, to }) => sum + distanceMm(from, to), 0);
        expect(measureContour(contour)).toBeCloseTo(length, 6);
        expect(distanceMm(startOf(contour), endOf(contour))).toBeLessThan(0.01);
      }),
      { seed: 83, numRuns: 100 },
    );
  });

  it('bridges gaps up to what is said by straight lines, and none above', () => {
    const at = (x: number) => ({ x, y: 0 });
    const two = [
      drawn(0, [{ kind: 'line', from: at(0), to: at(10) }]),
      drawn(1, [{ kind: 'line', from: at(10.4), to: at(20) }]),
    ];
    expect(joinLines(two, 0.3)).toHaveLength(2);
    const [joined] = joinLines(two, 0.5);
    expect(segmentsOf(joined!.contour)).toHaveLength(3);
    expect(measureContour(joined!.contour)).toBeCloseTo(20, 9);
  });
});
