import type { DepthOperation } from '#core/stack/operation.ts';

/** How deep a cut went, on one scale for every operation. */
export type DepthGrade = 0 | 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8;

/** The word and what to look for, per grade. */
export const GRADE_WORDS: Readonly<Record<DepthGrade, { readonly word: string; readonly look: string }>> = {
  0: { word: 'untouched', look: 'no line, or only a polish mark' },
  1: { word: 'partial', look: 'a line, but the face does not come free' },
  2: { word: 'hanging', look: 'comes free but for corners or a few fibres' },
  3: { word: 'clean', look: 'the face lifts, the liner shows no mark' },
  4: { word: 'scored', look: 'the face lifts, the liner is lightly marked' },
  5: { word: 'gouged', look: 'the liner is deeply marked, still whole' },
  6: { word: 'breached', look: 'the liner is cut, the piece still hangs' },
  7: { word: 'parted', look: 'the whole stack comes free, the mat is fine' },
  8: { word: 'scarred', look: 'the whole stack is free and the mat is cut too' },
};

/** Marks seen beside the depth. */
export const FLAWS = ['fuzzy', 'torn', 'jagged', 'dragged', 'lifted', 'shifted'] as const;
export type Flaw = (typeof FLAWS)[number];

/** The words for each flaw. */
export const FLAW_NAMES: Readonly<Record<Flaw, string>> = {
  fuzzy: 'fuzzy edge',
  torn: 'torn or bunched',
  jagged: 'jagged ends',
  dragged: 'dragged',
  lifted: 'lifted from mat',
  shifted: 'shifted',
};

const LAYERED: readonly DepthGrade[] = [0, 1, 2, 3, 4, 5, 6, 7, 8];
const SINGLE: readonly DepthGrade[] = [0, 1, 2, 7, 8];

/**
 * The grades that a sheet can show, ascending: nine on a layered stack, five on a single layer.
 *
 * @example gradesOfStack(false) // [0, 1, 2, 7, 8]
 */
export function gradesOfStack(isLayered: boolean): readonly DepthGrade[] {
  return isLayered ? LAYERED : SINGLE;
}

/**
 * The grades an operation wants, ascending, or `null` when the stack has no such operation.
 *
 * @example targetGrades('kiss', true) // [3, 4]
 */
export function targetGrades(operation: DepthOperation, isLayered: boolean): readonly DepthGrade[] | null {
  if (operation === 'through') return [7];
  if (operation === 'score') return isLayered ? null : [1];
  return isLayered ? [3, 4] : null;
}
