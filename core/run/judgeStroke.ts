import { OPERATION_OF } from '#core/drawing/roles/lineRoles.ts';
import type { RunStroke } from '#core/program/runStroke.ts';
import { judgeGrade, type GradeSide } from '#core/stack/judgeGrade.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';

/**
 * Whether what a stroke reached is what it is for: tabs want a kiss, a crease is not judged by depth, and where the
 * machine lifts over tabs of its own nothing is wanted.
 *
 * @example judgeStroke(5, { operation: 'kiss', isTab: false, ownTabs: false }) // 'over'
 */
export function judgeStroke(
  grade: DepthGrade,
  { operation, isTab, ownTabs }: Pick<RunStroke, 'operation' | 'isTab' | 'ownTabs'>,
): GradeSide {
  if (operation === 'crease' || (ownTabs && grade === 0)) return 'right';
  if (isTab) return judgeGrade(grade, 'kiss');
  const setting = OPERATION_OF[operation];
  return judgeGrade(grade, setting === 'kiss' || setting === 'score' ? setting : 'through');
}
