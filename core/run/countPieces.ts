import { areaOfBox, boundPoints, encloses, growBox, joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import type { Run } from '#core/run/run.ts';

/** What frees a piece from its sheet, before what only frees its face. */
const FREEING = new Set(['through', 'perforated', 'slit']);
/** An overcut may reach a little beyond the line around it, mm. */
const OVERCUT_REACH_MM = 0.5;

/**
 * How many pieces a run has cut, as far as it came: outlines that lie in no other, of what frees a piece, or of the kiss
 * where nothing does.
 *
 * @example countPieces({ strokes: [], outcomes: [] }) // 0
 */
export function countPieces({ strokes, outcomes }: Pick<Run, 'strokes' | 'outcomes'>): number {
  const reached = new Set(outcomes.map(({ index }) => index));
  const isFreed = strokes.some(({ operation }) => FREEING.has(operation));
  const boxes = new Map<number, BoxMm>();
  strokes.forEach(({ operation, contourId, points }, index) => {
    if (!reached.has(index) || !(isFreed ? FREEING.has(operation) : operation === 'kiss')) return;
    const box = boundPoints(points);
    const before = boxes.get(contourId);
    boxes.set(contourId, before ? joinBoxes([before, box]) : box);
  });
  // The largest first: whatever another holds comes after it.
  const sorted = [...boxes.values()].sort((a, b) => areaOfBox(b) - areaOfBox(a));
  const outer: BoxMm[] = [];
  for (const box of sorted)
    if (!outer.some((one) => encloses(growBox(one, OVERCUT_REACH_MM), box))) outer.push(box);
  return outer.length;
}
