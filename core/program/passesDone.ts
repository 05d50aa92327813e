import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import type { RunStroke } from '#core/program/runStroke.ts';

/**
 * Passes that the path of an operation had so far: those of its setting and every repeat.
 *
 * @example passesDone([{ operation: 'kiss', repeat: 0 }, { operation: 'kiss', repeat: 1 }], 'kiss') // 2
 */
export function passesDone(
  strokes: readonly Pick<RunStroke, 'operation' | 'repeat'>[],
  operation: CutRole,
): number {
  const own = strokes.filter((stroke) => stroke.operation === operation);
  return 1 + own.reduce((most, { repeat }) => Math.max(most, repeat), 0);
}
