import { fitRing } from '#core/artwork/trace/fitRing.ts';
import { followEdges } from '#core/artwork/trace/followEdges.ts';
import type { Coverage } from '#core/artwork/trace/pixels.ts';
import type { Contour } from '#core/geometry/contour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { mapContour } from '#core/geometry/affine.ts';
import { isInside, signedAreaMm2 } from '#core/geometry/polygon.ts';

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
export function traceCoverage(coverage: Coverage, options: TraceOptions): Traced {
  const { pixelsPerMm, toleranceMm, leastMm2, keepsHoles } = options;
  const least = leastMm2 * pixelsPerMm ** 2;
  const edges = followEdges(coverage)
    .map((ring) => ({ ring, area: signedAreaMm2(ring) }))
    .filter(({ area }) => Math.abs(area) >= least);
  const rings = keepsHoles ? edges.map(({ ring }) => ring) : outermost(edges);
  const fit = { tolerance: Math.max(LEAST_TOLERANCE, toleranceMm * pixelsPerMm), reach: REACH };
  const toMm = [1 / pixelsPerMm, 0, 0, 1 / pixelsPerMm, 0, 0] as const;
  const fitted = rings.map((ring) => fitRing(ring, fit));
  return {
    contours: fitted.map(({ contour }) => mapContour(toMm, contour)),
    deviationMm: Math.max(0, ...fitted.map(({ deviation }) => deviation)) / pixelsPerMm,
  };
}

interface Edge {
  readonly ring: readonly PointMm[];
  /** Above 0 where it holds a piece, below where it is a hole. */
  readonly area: number;
}

/** With its holes filled, what lies in a hole is part of the piece around it. */
function outermost(edges: readonly Edge[]): readonly (readonly PointMm[])[] {
  const pieces = edges.filter(({ area }) => area > 0).sort((a, b) => b.area - a.area);
  const kept: Edge[] = [];
  for (const piece of pieces) {
    const [point] = piece.ring;
    if (point && !kept.some(({ ring }) => isInside(point, ring))) kept.push(piece);
  }
  return kept.map(({ ring }) => ring);
}
