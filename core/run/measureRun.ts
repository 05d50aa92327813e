import type { CutRole } from '#core/drawing/lineRoles.ts';
import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import type { Run, RunStroke } from '#core/run/run.ts';

/** Passes that the path of an operation had so far: those of its setting and every repeat. */
export function passesDone(
  strokes: readonly Pick<RunStroke, 'operation' | 'repeat'>[],
  operation: CutRole,
): number {
  const own = strokes.filter((stroke) => stroke.operation === operation);
  return 1 + own.reduce((most, { repeat }) => Math.max(most, repeat), 0);
}

/** What the blade cut of a run, m: the strokes that were acknowledged. Creases are made by another tool. */
export function cutMetresOf({ strokes, outcomes }: Pick<Run, 'strokes' | 'outcomes'>): number {
  const millimetres = outcomes.reduce((sum, { index }) => {
    const stroke = strokes[index];
    return stroke && stroke.operation !== 'crease' ? sum + measurePolyline(stroke.points) : sum;
  }, 0);
  return millimetres / 1000;
}
