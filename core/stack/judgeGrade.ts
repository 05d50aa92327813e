import { targetGrades, type DepthGrade } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';

/** A grade against what an operation wants. */
export type GradeSide = 'under' | 'right' | 'over';

/**
 * Whether a grade is too shallow, right or too deep for an operation.
 *
 * @example judgeGrade(5, 'kiss') // 'over'
 */
export function judgeGrade(grade: DepthGrade, operation: DepthOperation): GradeSide {
  const wanted = targetGrades(operation, operation !== 'score') ?? [];
  if (wanted.includes(grade)) return 'right';
  return grade < (wanted[0] ?? 0) ? 'under' : 'over';
}
