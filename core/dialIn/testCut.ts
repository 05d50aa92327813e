import type { DepthGrade, Flaw, Operation } from '#core/stack/depthGrade.ts';
import type { Trial } from '#core/threshold/trial.ts';
import type { ScaleValue } from '#core/units/forceScale.ts';

/** One test cut as it was recorded. `force` is on the machine's scale, `forceGf` its nominal grams then. */
export interface TestCut {
  readonly id: number;
  readonly conditionId: number;
  readonly machineId: number;
  readonly operation: Operation;
  readonly force: ScaleValue;
  readonly forceGf: number;
  readonly speedMmPerS: number;
  readonly passes: number;
  readonly exposureMm: number;
  readonly bladeMetres: number;
  readonly grade: DepthGrade;
  readonly flaws: readonly Flaw[];
  readonly author: string;
  /** ISO 8601, UTC. */
  readonly at: string;
}

/** What the threshold model takes from a test cut. */
export function trialOf(cut: TestCut): Trial {
  const { forceGf, grade, passes, speedMmPerS, bladeMetres } = cut;
  return { forceGf, grade, passes, speedMmPerS, bladeMetres };
}
