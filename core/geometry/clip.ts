import {
  Clipper,
  ClipType,
  EndType,
  FillRule,
  JoinType,
  PolyTree64,
  type Path64,
  type Paths64,
  type PolyPath64,
} from 'clipper2-ts';
import type { BoxMm } from '#core/geometry/box.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** Closed rings in mm without their last point repeated; outer ones and holes turn opposite ways. */
export type Rings = readonly (readonly PointMm[])[];

/** Clipping counts in whole thousandths of a millimetre. */
const PER_MM = 1000;
/** A round offset may leave the true arc by this, mm. */
const ARC_MM = 0.005;

/**
 * Rings pushed outwards (or inwards, below 0), with round corners or sharp ones. What overlaps becomes one.
 *
 * @param byMm how far; the rings of an outward offset enclose the old ones
 * @param corners `round` is exact to 0.005 mm; `sharp` keeps corners up to four times the offset
 * @returns empty when an inward offset leaves nothing
 * @example areaOfRings(offsetRings([[{ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 10, y: 10 }, { x: 0, y: 10 }]], 1, 'sharp')) // 144
 */
export function offsetRings(rings: Rings, byMm: number, corners: 'round' | 'sharp' = 'round'): Rings {
  const join = corners === 'round' ? JoinType.Round : JoinType.Miter;
  const clean = Clipper.union(toPaths(rings), FillRule.NonZero);
  return toRings(Clipper.inflatePaths(clean, byMm * PER_MM, join, EndType.Polygon, 4, ARC_MM * PER_MM));
}

/**
 * The band that a round pen of this width leaves along open lines and rings.
 *
 * @example areaOfRings(strokeLines([loop], 1)) > 39 // true
 */
export function strokeLines(lines: Rings, widthMm: number): Rings {
  const paths = toPaths(lines);
  return toRings(
    Clipper.inflatePaths(paths, (widthMm / 2) * PER_MM, JoinType.Round, EndType.Round, 2, ARC_MM * PER_MM),
  );
}

/** The pen of a stroke. Source of the terms: W3C SVG 1.1, section 11.4. */
export interface Pen {
  readonly cap: 'butt' | 'round' | 'square';
  readonly join: 'miter' | 'round' | 'bevel';
  readonly miterLimit: number;
}

const JOINS = { miter: JoinType.Miter, round: JoinType.Round, bevel: JoinType.Bevel } as const;
const ENDS = { butt: EndType.Butt, round: EndType.Round, square: EndType.Square } as const;

/**
 * What a stroke along a line covers.
 *
 * @param isClosed joined where it began, instead of with caps
 * @example areaOfRings(coverStroke([{ x: 0, y: 0 }, { x: 9, y: 0 }], false, 2, { cap: 'butt', join: 'miter', miterLimit: 4 })) // 18
 */
export function coverStroke(
  line: readonly PointMm[],
  isClosed: boolean,
  widthMm: number,
  { cap, join, miterLimit }: Pen,
): Rings {
  const end = isClosed ? EndType.Joined : ENDS[cap];
  // The library counts a corner's reach in half widths, as SVG's limit does.
  const grown = Clipper.inflatePaths(
    toPaths([line]),
    (widthMm / 2) * PER_MM,
    JOINS[join],
    end,
    Math.max(1, miterLimit),
    ARC_MM * PER_MM,
  );
  return toRings(grown);
}

/**
 * What outlines of one shape fill, by the even-odd rule or the nonzero one; open ones are filled as if closed.
 *
 * @example areaOfRings(fillRings([square, square.map(({ x, y }) => ({ x: x / 2, y: y / 2 }))], true)) // 75
 */
export function fillRings(outlines: Rings, isEvenOdd: boolean): Rings {
  return toRings(Clipper.union(toPaths(outlines), isEvenOdd ? FillRule.EvenOdd : FillRule.NonZero));
}

/**
 * All that any ring covers; overlaps are covered once.
 *
 * @example uniteRings([[{ x: 0, y: 0 }, { x: 2, y: 0 }, { x: 2, y: 2 }], [{ x: 0, y: 0 }, { x: 2, y: 0 }, { x: 2, y: 2 }]]).length // 1
 */
export function uniteRings(rings: Rings): Rings {
  return toRings(Clipper.union(toPaths(rings), FillRule.NonZero));
}

/**
 * What outlines cover where one inside another is a hole, one inside that an island, and so on: each connected part with
 * its holes, the outer ring first.
 *
 * @example nestRings([[{ x: 0, y: 0 }, { x: 9, y: 0 }, { x: 9, y: 9 }, { x: 0, y: 9 }], [{ x: 3, y: 3 }, { x: 6, y: 3 }, { x: 6, y: 6 }, { x: 3, y: 6 }]])[0].length // 2
 */
export function nestRings(rings: Rings): readonly Rings[] {
  const tree = new PolyTree64();
  Clipper.booleanOpWithPolyTree(ClipType.Union, toPaths(rings), null, tree, FillRule.EvenOdd);
  const parts: Rings[] = [];
  const visit = (outer: PolyPath64) => {
    const holes = childrenOf(outer);
    parts.push(toRings([outer, ...holes].map(({ poly }) => poly ?? [])));
    holes.flatMap(childrenOf).forEach(visit);
  };
  childrenOf(tree).forEach(visit);
  return parts;
}

function childrenOf(path: PolyPath64): readonly PolyPath64[] {
  return Array.from({ length: path.count }, (_, index) => path.child(index));
}

/**
 * What `rings` cover and `others` do not.
 *
 * @example subtractRings([[{ x: 0, y: 0 }, { x: 2, y: 0 }, { x: 2, y: 2 }]], [[{ x: -1, y: -1 }, { x: 9, y: -1 }, { x: 9, y: 9 }, { x: -1, y: 9 }]]) // []
 */
export function subtractRings(rings: Rings, others: Rings): Rings {
  return toRings(Clipper.difference(toPaths(rings), toPaths(others), FillRule.NonZero));
}

/**
 * What both cover.
 *
 * @example areaOfRings(intersectRings([[{ x: 0, y: 0 }, { x: 4, y: 0 }, { x: 4, y: 4 }, { x: 0, y: 4 }]], [[{ x: 2, y: 0 }, { x: 9, y: 0 }, { x: 9, y: 4 }, { x: 2, y: 4 }]])) // 8
 */
export function intersectRings(rings: Rings, others: Rings): Rings {
  return toRings(Clipper.intersect(toPaths(rings), toPaths(others), FillRule.NonZero));
}

/**
 * The parts of lines that lie in a box, cut off at its edges.
 *
 * @example clipLines([[{ x: -5, y: 1 }, { x: 5, y: 1 }]], { minX: 0, minY: 0, maxX: 2, maxY: 2 }).length // 1
 */
export function clipLines(lines: Rings, { minX, minY, maxX, maxY }: BoxMm): Rings {
  const scaled = (mm: number) => Math.round(mm * PER_MM);
  const box = { left: scaled(minX), top: scaled(minY), right: scaled(maxX), bottom: scaled(maxY) };
  return toRings(Clipper.rectClipLines(box, toPaths(lines)));
}

/**
 * Covered area in mm²; holes count against it.
 *
 * @example areaOfRings([[{ x: 0, y: 0 }, { x: 3, y: 0 }, { x: 3, y: 4 }, { x: 0, y: 4 }]]) // 12
 */
export function areaOfRings(rings: Rings): number {
  return Math.abs(Clipper.areaPaths(toPaths(rings))) / PER_MM ** 2;
}

/**
 * The rings that lie in no other: holes are filled.
 *
 * @example fillHoles([square]).length // 1
 */
export function fillHoles(rings: Rings): Rings {
  const outer = toPaths(uniteRings(rings)).filter((path) => Clipper.isPositive(path));
  return toRings(Clipper.union(outer, FillRule.NonZero));
}

function toPaths(rings: Rings): Paths64 {
  return rings.map((ring) =>
    ring.map(({ x, y }) => ({ x: Math.round(x * PER_MM), y: Math.round(y * PER_MM) })),
  );
}

function toRings(paths: Paths64): Rings {
  return paths.map((path: Path64) => path.map(({ x, y }) => ({ x: x / PER_MM, y: y / PER_MM })));
}
