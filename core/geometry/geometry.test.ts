import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { svgPathProperties } from 'svg-path-properties';
import { composeAffine, mapContour, mapPoint, type Affine } from '#core/geometry/affine.ts';
import { arcToCentre, arcToCubics } from '#core/geometry/arcToCubics.ts';
import { boundContour } from '#core/geometry/box.ts';
import {
  endOf,
  LINE,
  packSegments,
  pointAt,
  segmentsOf,
  startOf,
  type Contour,
  type Segment,
} from '#core/geometry/contour.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { measureContour } from '#core/geometry/measureContour.ts';
import { distanceMm } from '#core/geometry/point.ts';
import { isInside, signedAreaMm2 } from '#core/geometry/polygon.ts';
import { readSvgPath } from '#core/drawing/svg/svgPath.ts';

const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
const point = fc.record({ x: coordinate, y: coordinate });
const cubic = fc
  .record({ from: point, control1: point, control2: point, to: point })
  .map((ends): Contour => packSegments([{ kind: 'cubic', ...ends }], false));
const square: Contour = readSvgPath('M0 0H10V10H0Z')[0] as Contour;
const circle: Contour = readSvgPath('M5 0A5 5 0 0 1 -5 0A5 5 0 0 1 5 0Z')[0] as Contour;

describe('a packed path', () => {
  const mixed = fc
    .array(fc.oneof(fc.record({ to: point }), fc.record({ control1: point, control2: point, to: point })), {
      minLength: 1,
      maxLength: 12,
    })
    .map((steps) => {
      let from = { x: 1, y: 2 };
      return steps.map((step): Segment => {
        const segment: Segment =
          'control1' in step ? { kind: 'cubic', from, ...step } : { kind: 'line', from, ...step };
        from = step.to;
        return segment;
      });
    });

  it('gives back the segments it was packed from, their start and their end', () => {
    fc.assert(
      fc.property(mixed, fc.boolean(), (segments, isClosed) => {
        const contour = packSegments(segments, isClosed);
        expect(segmentsOf(contour)).toEqual(segments);
        expect(startOf(contour)).toEqual({ x: 1, y: 2 });
        expect(endOf(contour)).toEqual(segments.at(-1)!.to);
      }),
      { seed: 31 },
    );
  });

  it('maps point by point, the marks between them left alone', () => {
    const turn: Affine = [0, 2, -2, 0, 5, -3];
    fc.assert(
      fc.property(mixed, (segments) => {
        const image = segmentsOf(mapContour(turn, packSegments(segments, false)));
        image.forEach((segment, index) => {
          expect(segment.kind).toBe(segments[index]!.kind);
          for (const [name, at] of Object.entries(segment)) {
            if (name === 'kind') continue;
            const before = segments[index]![name as 'from'];
            expect(at).toEqual(mapPoint(turn, before));
          }
        });
      }),
      { seed: 32 },
    );
  });
});

describe('boundContour', () => {
  it('holds every point of random cubics and touches them on each side (1e-3 of sampling)', () => {
    fc.assert(
      fc.property(cubic, (contour) => {
        const box = boundContour(contour);
        const samples = Array.from({ length: 2001 }, (_, k) => pointAt(segmentsOf(contour)[0]!, k / 2000));
        const xs = samples.map((sample) => sample.x);
        const ys = samples.map((sample) => sample.y);
        expect(box.minX - Math.min(...xs)).toBeLessThanOrEqual(1e-9);
        expect(Math.max(...xs) - box.maxX).toBeLessThanOrEqual(1e-9);
        expect(Math.min(...xs) - box.minX).toBeLessThan(1e-3);
        expect(box.maxY - Math.max(...ys)).toBeLessThan(1e-3);
      }),
      { seed: 7, numRuns: 200 },
    );
  });

  it('is exact for a circle of arcs', () => {
    const box = boundContour(circle);
    expect(box.minX).toBeCloseTo(-5, 9);
    expect(box.maxY).toBeCloseTo(5, 4);
  });
});

describe('measureContour', () => {
  it('agrees with svg-path-properties 1.3 on curves and arcs (1e-3 of the length)', () => {
    for (const data of [
      'M0 0C10 20 30 -20 40 0',
      'M0 0Q15 30 30 0T60 0',
      'M10 10A20 10 30 1 1 40 30',
      'M0 0H30V20L5 40Z',
      'M0 0c1 40 39 40 40 0s-20 -9 -40 30',
    ]) {
      const ours = readSvgPath(data).reduce((sum, contour) => sum + measureContour(contour), 0);
      const theirs = new svgPathProperties(data).getTotalLength();
      expect(Math.abs(ours / theirs - 1)).toBeLessThan(1e-3);
    }
  });

  it('is 2 pi r for a circle to 1e-5 of its length, and right at a cusp', () => {
    expect(Math.abs(measureContour(circle) / (10 * Math.PI) - 1)).toBeLessThan(1e-5);
    const cusp = readSvgPath('M0 0C30 0 -20 0 10 0')[0] as Contour;
    const steps = 100_000;
    const at = Array.from({ length: steps + 1 }, (_, k) => pointAt(segmentsOf(cusp)[0]!, k / steps));
    const sum = at.slice(1).reduce((total, here, index) => total + distanceMm(at[index]!, here), 0);
    expect(measureContour(cusp)).toBeCloseTo(sum, 4);
  });
});

describe('flattenContour', () => {
  it('stays within its tolerance of random cubics', () => {
    fc.assert(
      fc.property(cubic, fc.constantFrom(0.5, 0.05, 0.0125), (contour, tolerance) => {
        const flat = flattenContour(contour, tolerance);
        for (let k = 0; k <= 200; k++) {
          const on = pointAt(segmentsOf(contour)[0]!, k / 200);
          let nearest = distanceMm(on, flat[0]!);
          for (let index = 1; index < flat.length; index++) {
            nearest = Math.min(nearest, distanceToLeg(on, flat[index - 1]!, flat[index]!));
          }
          expect(nearest).toBeLessThanOrEqual(tolerance + 0.011);
        }
      }),
      { seed: 8, numRuns: 100 },
    );
  });

  it('ends a closed contour on its first point', () => {
    const flat = flattenContour(circle);
    expect(flat.at(-1)).toEqual(flat[0]);
    expect(Math.abs(signedAreaMm2(flat))).toBeCloseTo(25 * Math.PI, 0);
  });
});

describe('arcs', () => {
  it('go to centre form by W3C SVG 1.1 appendix F.6: centre equally far from both ends', () => {
    const arc = {
      from: { x: 100, y: 350 },
      to: { x: 150, y: 325 },
      radiusX: 25,
      radiusY: 25,
      tiltRad: -Math.PI / 6,
      isLarge: false,
      isSweep: true,
    };
    const centred = arcToCentre(arc)!;
    // Ends 55.9 apart, radii 25: F.6.6 scales the radii up to half of that, centre in the middle.
    expect(centred.radiusX).toBeCloseTo(Math.hypot(50, 25) / 2, 9);
    expect(centred.centre.x).toBeCloseTo(125, 9);
    expect(centred.centre.y).toBeCloseTo(337.5, 9);
    expect(Math.abs(centred.sweepRad)).toBeCloseTo(Math.PI, 6);
  });

  it('keep all points on the ellipse within 4.3e-6 of the radius', () => {
    const shared = { radiusX: 40, radiusY: 40, tiltRad: 0, isLarge: true, isSweep: false };
    const path = [40, 0];
    arcToCubics(path, path.length, { ...shared, from: { x: 40, y: 0 }, to: { x: 0, y: 40 } });
    const { centre } = arcToCentre({ ...shared, from: { x: 40, y: 0 }, to: { x: 0, y: 40 } })!;
    for (const segment of segmentsOf({ path, isClosed: false })) {
      for (let k = 0; k <= 50; k++) {
        expect(Math.abs(distanceMm(pointAt(segment, k / 50), centre) - 40)).toBeLessThan(40 * 4.3e-6);
      }
    }
  });

  it('with no radius are a line, with one end are nothing', () => {
    const flat = { radiusX: 0, radiusY: 5, tiltRad: 0, isLarge: false, isSweep: true };
    const path = [0, 0];
    arcToCubics(path, path.length, { ...flat, from: { x: 0, y: 0 }, to: { x: 1, y: 0 } });
    expect(path).toEqual([0, 0, LINE, 1, 0]);
    arcToCubics(path, path.length, { ...flat, from: { x: 1, y: 0 }, to: { x: 1, y: 0 } });
    expect(path).toHaveLength(5);
  });
});

describe('maps and rings', () => {
  it('compose like doing one after the other', () => {
    const turn: Affine = [0, 1, -1, 0, 3, 4];
    const grow: Affine = [2, 0, 0, 3, 1, 1];
    const at = { x: 5, y: 7 };
    const both = mapPoint(composeAffine(turn, grow), at);
    const stepwise = mapPoint(turn, mapPoint(grow, at));
    expect(both.x).toBeCloseTo(stepwise.x, 12);
    expect(both.y).toBeCloseTo(stepwise.y, 12);
    expect(measureContour(mapContour([2, 0, 0, 2, 0, 0], square))).toBeCloseTo(80, 9);
  });

  it('know inside from outside and clockwise from not', () => {
    const ring = flattenContour(square);
    expect(isInside({ x: 5, y: 5 }, ring)).toBe(true);
    expect(isInside({ x: 15, y: 5 }, ring)).toBe(false);
    expect(signedAreaMm2(ring)).toBeCloseTo(100, 9);
    expect(signedAreaMm2([...ring].reverse())).toBeCloseTo(-100, 9);
  });
});

function distanceToLeg(
  p: { x: number; y: number },
  a: { x: number; y: number },
  b: { x: number; y: number },
): number {
  const length2 = (b.x - a.x) ** 2 + (b.y - a.y) ** 2 || 1;
  const share = Math.max(0, Math.min(1, ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / length2));
  return Math.hypot(p.x - a.x - share * (b.x - a.x), p.y - a.y - share * (b.y - a.y));
}
