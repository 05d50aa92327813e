import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';

/** What two boundaries on a ladder say: from which cell on something is seen. */
export interface GradeZones {
  /** Words at the first boundary: from here it is enough. */
  readonly enoughWords: string;
  /** Words at the second: from here it is too much. */
  readonly tooMuchWords: string;
  /** Shallowest and deepest grade of the cells before, between and after the boundaries. */
  readonly before: readonly [DepthGrade, DepthGrade];
  readonly between: readonly [DepthGrade, DepthGrade];
  readonly after: readonly [DepthGrade, DepthGrade];
}

/**
 * A ladder is graded fastest by its two boundaries. Each zone says a range of grades and no more: what was not looked
 * at is not made up.
 *
 * @example gradeZones('kiss', true).between // [3, 4]
 */
export function gradeZones(operation: DepthOperation, isLayered: boolean): GradeZones {
  if (operation === 'kiss') {
    return {
      enoughWords: 'from here it lifts',
      tooMuchWords: 'from here the liner is deeply scored',
      before: [0, 2],
      // The middle is what a single cut calls right: clean, or lightly scored.
      between: [3, 4],
      after: [5, 8],
    };
  }
  if (operation === 'score') {
    return {
      enoughWords: 'from here a line shows',
      tooMuchWords: 'from here it nearly parts',
      before: [0, 0],
      between: [1, 1],
      after: [2, 8],
    };
  }
  return {
    enoughWords: 'from here it parts',
    tooMuchWords: 'from here the mat is cut',
    before: [0, isLayered ? 6 : 2],
    between: [7, 7],
    after: [8, 8],
  };
}

/**
 * The grade range of each cell, from the index where each boundary begins (the cell count for "nowhere").
 *
 * @example zoneCells(gradeZones('kiss', true), 3, 1, 2) // [[0, 2], [3, 4], [5, 8]]
 */
export function zoneCells(
  zones: GradeZones,
  cellCount: number,
  enoughFrom: number,
  tooMuchFrom: number,
): readonly (readonly [DepthGrade, DepthGrade])[] {
  return Array.from({ length: cellCount }, (_, cell) => {
    if (cell >= tooMuchFrom) return zones.after;
    return cell >= enoughFrom ? zones.between : zones.before;
  });
}
