import { describe, expect, it } from 'vitest';
import { drawFinestSpot } from '#core/dialIn/finestSpot.ts';
import { makeTestPiece } from '#core/dialIn/testPiece.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { seededRandom } from '#core/random/seededRandom.ts';

/** A star of many narrow points around a place, closed. */
function star(x: number, y: number, points: number, outer: number): readonly PointMm[] {
  const ring = Array.from({ length: points * 2 }, (_, index) => {
    const radius = index % 2 === 0 ? outer : outer / 2;
    const angle = (Math.PI * index) / points;
    return { x: x + radius * Math.cos(angle), y: y + radius * Math.sin(angle) };
  });
  return [...ring, ring[0]!];
}
const box = (x: number, y: number, edge: number): readonly PointMm[] => [
  { x, y },
  { x: x + edge, y },
  { x: x + edge, y: y + edge },
  { x, y: y + edge },
  { x, y },
];

describe('the finest spot of a drawing', () => {
  it('is where the fine lines are, wherever they lie in a large plain drawing', () => {
    const random = seededRandom(11);
    for (let round = 0; round < 40; round++) {
      const at = { x: 20 + random() * 160, y: 20 + random() * 110 };
      const spot = drawFinestSpot([box(0, 0, 200), box(5, 5, 60), star(at.x, at.y, 12, 4)], 'badge')!;
      // Nine points in ten of the star, and as much of its line, lie in it.
      const corners = spot.lines.slice(0, -1).reduce((sum, points) => sum + points.length, 0);
      expect(corners).toBeGreaterThanOrEqual(22);
    }
  });

  it('is no larger than a test piece, has a frame around it that is cut last, and nothing leaves the frame', () => {
    const random = seededRandom(3);
    for (let round = 0; round < 40; round++) {
      const lines = Array.from({ length: 30 }, () =>
        star(random() * 200, random() * 150, 3 + Math.floor(random() * 9), 1 + random() * 20),
      );
      const { widthMm, heightMm, lines: cut } = drawFinestSpot(lines, 'confetti')!;
      expect(Math.max(widthMm, heightMm)).toBeLessThanOrEqual(12.001);
      expect(cut.at(-1)).toEqual([
        { x: 0, y: 0 },
        { x: widthMm, y: 0 },
        { x: widthMm, y: heightMm },
        { x: 0, y: heightMm },
        { x: 0, y: 0 },
      ]);
      for (const { x, y } of cut.slice(0, -1).flat()) {
        expect(x).toBeGreaterThanOrEqual(1 - 0.002);
        expect(x).toBeLessThanOrEqual(widthMm - 1 + 0.002);
        expect(y).toBeGreaterThanOrEqual(1 - 0.002);
        expect(y).toBeLessThanOrEqual(heightMm - 1 + 0.002);
      }
    }
  });

  it('of a drawing without lines is nothing; of a tiny one, or a single straight line, the whole', () => {
    expect(drawFinestSpot([], 'empty')).toBeNull();
    expect(drawFinestSpot([[{ x: 1, y: 1 }]], 'dot')).toBeNull();
    expect(drawFinestSpot([box(0, 0, 3)], 'small')).toMatchObject({ widthMm: 5, heightMm: 5 });
    const line = drawFinestSpot(
      [
        [
          { x: 0, y: 7 },
          { x: 6, y: 7 },
        ],
      ],
      'line',
    )!;
    expect(line).toMatchObject({ widthMm: 8, heightMm: 2 });
  });

  it('is a test piece like the others once a job is chosen', () => {
    const spot = drawFinestSpot([star(30, 30, 8, 4)], 'badge')!;
    expect(makeTestPiece('spot', undefined, spot).lines).toHaveLength(2);
    expect(() => makeTestPiece('spot')).toThrow('choose the job');
  });
});
