import { itemAt } from '#core/collections/itemAt.ts';
import type { Drawing, DrawnContour } from '#core/drawing/drawing.ts';
import { FREEING_ROLES, roleOf, type GivenRoles, type Role } from '#core/drawing/roles/lineRoles.ts';
import { distanceToWay } from '#core/geometry/distanceToWay.ts';
import { boundContour, boundPoints, growBox, overlap } from '#core/geometry/box.ts';
import { strokeLines, uniteRings, type Rings } from '#core/geometry/clip.ts';
import { narrowestGap } from '#core/sheet/bleedBands.ts';
import { ringOf } from '#core/geometry/ringOf.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { isCovered, turnAlike } from '#core/geometry/polygon.ts';
import { pointAlong } from '#core/geometry/pointAlong.ts';

/** How the art of a drawing meets the outlines it is cut out by. */
export interface DrawnEdge {
  /** Share of the outlines that ink reaches or crosses, 0 to 1. */
  readonly inkedShare: number;
  /** The narrowest blank rim inside the outlines, mm; 0 where ink reaches one. */
  readonly borderMm: number;
  /** How far the art itself goes on beyond the outlines where it reaches them, mm. */
  readonly drawnBleedMm: number;
  /** The narrowest gap between cut lines of two pieces, mm; `null` where none is narrow. */
  readonly narrowestGapMm: number | null;
}

/** Looking needs no cutting tolerance, mm. */
const LOOK_MM = 0.1;
const SAMPLES = 48;
const MOST_OUTLINES = 60;
/** Gaps wider than this bound no bleed that anybody takes, mm. */
const WIDE_GAP_MM = 8;

/**
 * Measures rim and bleed as they were drawn: at places along every outline that art lies in, how far the art's edge is,
 * inside or beyond.
 *
 * @param shown what pictures show of themselves, less what is clear; `null` where nobody looked: they count by their frame
 * @returns `null` when no outline has art in it
 * @example measureEdge(drawing, given) // null
 */
export function measureEdge(
  drawing: Drawing,
  given: GivenRoles,
  shown: Rings | null = null,
): DrawnEdge | null {
  const art = drawing.contours.filter(
    (line) => roleOf(line, given) === 'art' && (line.fillColour !== null || line.strokeColour !== null),
  );
  const boxes = art.map(({ contour }) => boundContour(contour));
  const pictures = (shown ?? framesOf(drawing).map(turnAlike)).map((ring) => ({
    ring,
    box: boundPoints(ring),
  }));
  const outlines = edgesOf(drawing.contours, given);
  const reaches = outlines.slice(0, MOST_OUTLINES).flatMap(({ contour }) => {
    const box = boundContour(contour);
    const near = art.filter((_, index) => overlap(box, itemAt(boxes, index)));
    const around = growBox(box, WIDE_GAP_MM);
    const seen = pictures.filter((picture) => overlap(around, picture.box)).map(({ ring }) => ring);
    const inked = uniteRings([...near.flatMap(inkOf), ...seen]);
    return inked.length === 0 ? [] : reachesOf(flattenContour(contour, LOOK_MM), inked);
  });
  if (reaches.length === 0) return null;
  const beyond = reaches.filter((reach) => reach > -LOOK_MM);
  return {
    narrowestGapMm: narrowestGap(
      outlines.map(({ contour }) => ringOf(contour, LOOK_MM)),
      WIDE_GAP_MM,
    ),
    inkedShare: beyond.length / reaches.length,
    borderMm: beyond.length > 0 ? 0 : reaches.reduce((least, reach) => Math.min(least, -reach), Infinity),
    drawnBleedMm:
      beyond.length === 0
        ? 0
        : Math.max(
            0,
            beyond.reduce((least, reach) => Math.min(least, reach), Infinity),
          ),
  };
}

function framesOf({ images }: Drawing): Rings {
  return images.map(({ toMm: [a, b, c, d, e, f] }) => [
    { x: e, y: f },
    { x: e + a, y: f + b },
    { x: e + a + c, y: f + b + d },
    { x: e + c, y: f + d },
  ]);
}

/**
 * The outlines whose edges are seen when a piece is used: the kissed ones where there are any, else those that free it.
 *
 * @example edgesOf(drawing.contours, given).length // 1
 */
export function edgesOf<Line extends DrawnContour & { readonly sourceId?: number }>(
  lines: readonly Line[],
  given: GivenRoles,
): readonly Line[] {
  const closed = (wanted: (role: Role) => boolean) =>
    lines.filter((line) => {
      const role = roleOf(line, given);
      return line.contour.isClosed && role !== null && wanted(role);
    });
  const kissed = closed((role) => role === 'kiss');
  return kissed.length > 0 ? kissed : closed((role) => FREEING_ROLES.has(role));
}

/** What a line of art covers: its fill, and the band of its stroke. */
function inkOf({ contour, fillColour, strokeColour, strokeWidthMm }: DrawnContour): Rings {
  const points = flattenContour(contour, LOOK_MM);
  return [
    ...(fillColour === null ? [] : [turnAlike(points)]),
    ...(strokeColour === null ? [] : strokeLines([points], Math.max(0.1, strokeWidthMm ?? 0))),
  ];
}

/** At places along an outline: how far ink goes on beyond it, below 0 how far it stays inside. */
function reachesOf(outline: readonly PointMm[], inked: Rings): readonly number[] {
  const total = measurePolyline(outline);
  return Array.from({ length: SAMPLES }, (_, sample) => {
    const point = pointAlong(outline, ((sample + 0.5) / SAMPLES) * total);
    const isInk = isCovered(point, inked);
    const distance = inked.reduce(
      (least, ring) => Math.min(least, distanceToWay(point, [...ring, itemAt(ring, 0)])),
      Infinity,
    );
    return isInk ? distance : -distance;
  });
}
