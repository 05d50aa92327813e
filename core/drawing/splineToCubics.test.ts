import { describe, expect, it } from 'vitest';
import { splineToCubics } from '#core/drawing/splineToCubics.ts';

const points = [0, 1, 2, 3].map((x) => ({ x, y: x * x }));

describe('a spline that cannot be', () => {
  it('with knots that fall is none, and says so by giving nothing', () => {
    const spline = { degree: 3, knots: [0, 0, 0, 5, 1, 1, 1, 1], points, weights: [] };
    expect(splineToCubics(spline)).toEqual([]);
    expect(splineToCubics({ ...spline, knots: [0, 0, 0, NaN, 1, 1, 1, 1] })).toEqual([]);
    expect(splineToCubics({ ...spline, knots: [0, 0, 0, 0, 1, 1, 1, 1] })).toHaveLength(1);
  });

  it('of a degree that no program writes is none', () => {
    const degree = 2000;
    const many = Array.from({ length: degree + 1 }, (_, x) => ({ x, y: 0 }));
    const knots = [...Array(degree + 1).fill(0), ...Array(degree + 1).fill(1)] as number[];
    expect(splineToCubics({ degree, knots, points: many, weights: [] })).toEqual([]);
  });
});
