import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { dotsAlong } from '#core/geometry/dotsAlong.ts';
import { distanceMm } from '#core/geometry/point.ts';
import { slicePolyline } from '#core/geometry/slicePolyline.ts';
import { readSvgPath } from '#core/drawing/svg/svgPath.ts';
import { writePathData, writePolylineData } from '#core/drawing/writePathData.ts';

const corner = [
  { x: 0, y: 0 },
  { x: 10, y: 0 },
  { x: 10, y: 10 },
];
const length = (points: readonly { x: number; y: number }[]) =>
  points.slice(1).reduce((sum, point, index) => sum + distanceMm(points[index]!, point), 0);

describe('slicePolyline', () => {
  it('cuts at shares of the length and keeps corners', () => {
    expect(slicePolyline(corner, 0.1, 0.25)).toEqual([
      { x: 2, y: 0 },
      { x: 5, y: 0 },
    ]);
    expect(slicePolyline(corner, 0, 1)).toEqual(corner);
  });

  it('gives pieces whose lengths are their shares', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(share, share, (a, b) => {
        const [from, to] = a < b ? [a, b] : [b, a];
        expect(length(slicePolyline(corner, from, to))).toBeCloseTo((to - from) * 20, 6);
      }),
      { seed: 3 },
    );
  });
});

describe('dotsAlong', () => {
  it('spaces marks evenly, at least one', () => {
    const dots = dotsAlong(corner, 5);
    expect(dots).toHaveLength(4);
    expect(dots[0]).toEqual({ x: 2.5, y: 0 });
    expect(dotsAlong(corner, 500)).toHaveLength(1);
  });
});

describe('path data', () => {
  it('reads back as the contour it was written from', () => {
    const contour = readSvgPath('M1 2L10 2C12 3 14 5 10 12Z')[0]!;
    expect(readSvgPath(writePathData(contour))[0]).toEqual(contour);
    expect(writePolylineData(corner)).toBe('M0 0L10 0L10 10');
  });
});
