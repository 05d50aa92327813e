import { contours } from 'd3-contour';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { followEdges } from '#core/artwork/trace/followEdges.ts';
import { HALF } from '#core/artwork/trace/pixels.ts';
import { signedAreaMm2 } from '#core/geometry/polygon.ts';

/** Fields of any kind: flat, noisy, with pixels that touch at corners, and up to the rim. */
const coverages = fc
  .record({ width: fc.integer({ min: 1, max: 14 }), height: fc.integer({ min: 1, max: 14 }) })
  .chain(({ width, height }) =>
    fc
      .array(fc.oneof(fc.constantFrom(0, 255), fc.integer({ min: 0, max: 255 })), {
        minLength: width * height,
        maxLength: width * height,
      })
      .map((values) => ({ width, height, values: Uint8Array.from(values) })),
  );

/** A ring from its least point on, in one direction, to be compared. */
function normalise(ring: readonly (readonly [number, number])[]): string {
  const texts = ring.map(([x, y]) => `${x.toFixed(6)},${y.toFixed(6)}`);
  const turned = [texts, texts.toReversed()].map((one) => {
    const least = one.indexOf([...one].sort()[0] as string);
    return [...one.slice(least), ...one.slice(0, least)].join(' ');
  });
  return turned.sort()[0] as string;
}

describe('edges of a coverage', () => {
  it('are those that d3-contour finds, ring by ring and point by point (seeded, 1e-6)', () => {
    fc.assert(
      fc.property(coverages, (coverage) => {
        const { width, height, values } = coverage;
        const { coordinates } = contours()
          .size([width, height])
          .contour([...values], HALF);
        const theirs = coordinates.flat().map((ring) => normalise(ring.slice(1) as [number, number][]));
        const ours = followEdges(coverage).map((ring) => normalise(ring.map(({ x, y }) => [x, y] as const)));
        expect(ours.toSorted()).toEqual(theirs.toSorted());
      }),
      { seed: 17, numRuns: 300 },
    );
  });

  it('hold a piece where their area is above 0 and are a hole where it is below', () => {
    const rows = ['.....', '.###.', '.#.#.', '.###.', '.....'];
    const values = Uint8Array.from(rows.join(''), (sign) => (sign === '#' ? 255 : 0));
    const areas = followEdges({ width: 5, height: 5, values }).map(signedAreaMm2);
    expect(areas.map(Math.sign).sort()).toEqual([-1, 1]);
    // Nine pixels less what is cut off at corners, and one that is a little larger for the same reason.
    expect(Math.max(...areas)).toBeCloseTo(8.5, 9);
    expect(Math.min(...areas)).toBeCloseTo(-0.5, 9);
  });

  it('are none where nothing is covered', () => {
    expect(followEdges({ width: 3, height: 2, values: new Uint8Array(6) })).toEqual([]);
  });
});
