import type { DepthGrade, Flaw } from '#core/stack/depthGrade.ts';

/** A grade as it was tapped: of a cut made now at a force, or of a cell of the card. */
export interface GivenGrade {
  readonly force?: number;
  readonly cell?: number;
  readonly grade: DepthGrade;
  readonly upTo?: DepthGrade;
  readonly flaws: readonly Flaw[];
}

/** Grades that are recorded together: of one load, or of a single cut. */
export interface GivenGrades {
  readonly load?: number;
  readonly grades: readonly GivenGrade[];
}
