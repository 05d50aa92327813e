import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import type { Run } from '#core/run/run.ts';

/**
 * What the blade cut of a run, m: the strokes that were acknowledged. Creases are made by another tool.
 *
 * @example cutMetresOf({ strokes: [], outcomes: [] }) // 0
 */
export function cutMetresOf({ strokes, outcomes }: Pick<Run, 'strokes' | 'outcomes'>): number {
  const millimetres = outcomes.reduce((sum, { index }) => {
    const stroke = strokes[index];
    return stroke && stroke.operation !== 'crease' ? sum + measurePolyline(stroke.points) : sum;
  }, 0);
  return millimetres / 1000;
}
