import { contours } from 'd3-contour';
import { fitRing } from '#core/artwork/trace/fitRing.ts';
import { HALF, type Coverage } from '#core/artwork/trace/pixels.ts';
import type { Contour } from '#core/geometry/contour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { mapContour } from '#core/geometry/affine.ts';
import { signedAreaMm2 } from '#core/geometry/polygon.ts';

/** How an outline is drawn from a picture. */
export interface TraceOptions {
  /** How many pixels a mm of paper has. */
  readonly pixelsPerMm: number;
  /** The outline may lie this far from the edge of the picture, mm. */
  readonly toleranceMm: number;
  /** Pieces and holes smaller than this are left out, mm². */
  readonly leastMm2: number;
  readonly keepsHoles: boolean;
}

/** The outlines of a picture, mm from its upper left corner: outer ones and, where they are kept, holes. */
export interface Traced {
  readonly contours: readonly Contour[];
  /** How far the edge of the picture lies from them at most. */
  readonly deviationMm: number;
}

/** An edge is known to a part of a pixel: no fit is asked to be nearer, in pixels. */
const LEAST_TOLERANCE = 0.3;
/** Directions are read over so many pixels. */
const REACH = 3.5;

/**
 * The outlines of what is covered.
 *
 * @example traceCoverage(pixelCoverage, { pixelsPerMm: 12, toleranceMm: 0.04, leastMm2: 1, keepsHoles: false }).contours // []
 */
export function traceCoverage({ width, height, values }: Coverage, options: TraceOptions): Traced {
  const { pixelsPerMm, toleranceMm, leastMm2, keepsHoles } = options;
  const { coordinates } = contours()
    .size([width, height])
    .contour(values as unknown as number[], HALF);
  const least = leastMm2 * pixelsPerMm ** 2;
  const rings = coordinates
    .flatMap((polygon) => (keepsHoles ? polygon : polygon.slice(0, 1)))
    .map((ring) => ring.slice(1).map(([x, y]): PointMm => ({ x: x as number, y: y as number })))
    .filter((ring) => ring.length >= 3 && Math.abs(signedAreaMm2(ring)) >= least);
  const fit = { tolerance: Math.max(LEAST_TOLERANCE, toleranceMm * pixelsPerMm), reach: REACH };
  const toMm = [1 / pixelsPerMm, 0, 0, 1 / pixelsPerMm, 0, 0] as const;
  const fitted = rings.map((ring) => fitRing(ring, fit));
  return {
    contours: fitted.map(({ contour }) => mapContour(toMm, contour)),
    deviationMm: Math.max(0, ...fitted.map(({ deviation }) => deviation)) / pixelsPerMm,
  };
}
