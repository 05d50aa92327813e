import type { RunStroke } from '#core/program/runStroke.ts';
import type { Plan } from '#core/passes/plan.ts';

/**
 * The strokes of a plan in the order in which they are sent, points to 0.01 mm.
 *
 * @example listRunStrokes(plan).length // 2
 */
export function listRunStrokes({ passes }: Pick<Plan, 'passes'>): readonly RunStroke[] {
  const round = (value: number) => Math.round(value * 100) / 100;
  return passes.flatMap(({ role, strokes }) =>
    strokes.map(({ contourId, repeat, isTab, points, ownTabs }) => ({
      operation: role,
      isTab,
      ...(ownTabs ? { ownTabs: { cutLengthMm: ownTabs.cutLengthMm, tabLengthMm: ownTabs.tabLengthMm } } : {}),
      contourId,
      repeat,
      points: points.map(({ x, y }) => ({ x: round(x), y: round(y) })),
    })),
  );
}
