import type { DepthGrade, Flaw } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { Trial } from '#core/threshold/trial.ts';
import { gfOf, type ForceScale, type ScaleValue } from '#core/units/forceScale.ts';

/** One test cut as it was recorded. `force` is on the machine's scale, `forceGf` its nominal grams then. */
export interface TestCut {
  readonly id: number;
  readonly conditionId: number;
  readonly machineId: number;
  readonly operation: DepthOperation;
  readonly force: ScaleValue;
  readonly forceGf: number;
  readonly speedMmPerS: number;
  readonly passes: number;
  readonly exposureMm: number;
  readonly bladeMetres: number;
  readonly grade: DepthGrade;
  /** The deepest grade it may have had, where a ladder was graded by its boundaries; else `null`. */
  readonly upTo?: DepthGrade | null | undefined;
  readonly flaws: readonly Flaw[];
  readonly author: string;
  /** The lot and colour it was cut on, or empty. */
  readonly lot: string;
  readonly colour: string;
  /** ISO 8601, UTC. */
  readonly at: string;
  /** The blade that cut it; `null` when nobody knows. */
  readonly bladeId?: number | null | undefined;
  /** Its kind, "45° fine"; left out when nobody knows. */
  readonly bladeKind?: string | undefined;
  /** The dial-in it belongs to, and the card and cell it was cut in; `null` for a cut of its own. */
  readonly dialInId?: number | null | undefined;
  readonly load?: number | null | undefined;
  readonly cell?: number | null | undefined;
}

/**
 * What the threshold model takes from a test cut.
 *
 * @param factor what the sheet of today wants over the sheet of the cut, because of colour and lot
 * @example trialOf(testCut, gramScale, 1.1).forceGf // 110
 */
export function trialOf(cut: TestCut, scale: ForceScale, factor: number): Trial {
  const { force, forceGf, grade, passes, speedMmPerS, bladeMetres, author } = cut;
  // A scale measured meanwhile tells better what the force was; a scale that no longer has it does not.
  const isOnScale = force >= scale.min && force <= scale.max;
  const gf = isOnScale ? gfOf(force, scale) : forceGf;
  const upTo = cut.upTo == null ? {} : { upTo: cut.upTo };
  const trial = { forceGf: gf * factor, grade, ...upTo, passes, speedMmPerS, bladeMetres, reader: author };
  const load = cut.load == null ? null : (cut.dialInId ?? 0) * 1000 + cut.load;
  return load === null ? trial : { ...trial, load };
}
