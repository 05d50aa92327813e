import type { DialInStory } from '#demo/history.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';

/** One cut at the kept force before the day's work. */
type Check = readonly [daysAgo: number, bladeMetres: number, grade: DepthGrade];

/**
 * A cut of the usual setting on the label paper each working morning: at first it lifts clean, then corners hang, for
 * the desk cutter's blade is near its end. Nobody has put the pieces together yet.
 */
const CHECKS: readonly Check[] = [
  [16, 262, 3],
  [15, 268, 3],
  [13, 276, 3],
  [12, 284, 2],
  [11, 291, 3],
  [9, 299, 2],
  [8, 307, 2],
  [7, 314, 2],
  [5, 322, 1],
  [4, 330, 2],
  [2, 338, 1],
  [1, 346, 2],
];

export const MORNING_CHECKS: readonly DialInStory[] = CHECKS.map(([daysAgo, bladeMetres, grade]) => ({
  machine: 'Dunlin desk',
  material: 'Drift label paper',
  condition: 'printed',
  operation: 'kiss',
  author: 'Tove',
  daysAgo,
  speed: 20,
  passes: 1,
  exposureMm: 0.3,
  bladeMetres,
  bladeNumber: 5,
  cuts: [[5, grade]],
  kept: null,
}));
