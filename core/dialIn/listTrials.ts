import { EVIDENCE_WEIGHTS, weighVerdict } from '#core/dialIn/evidenceWeights.ts';
import { trialOf, type TestCut } from '#core/dialIn/testCut.ts';
import { isSameKind } from '#core/knowledge/evidence.ts';
import { sheetFactor } from '#core/setting/correctForce.ts';
import type { RunVerdict } from '#core/setting/setting.ts';
import { hasLiner } from '#core/stack/layer.ts';
import { targetGrades, type DepthGrade } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import type { Trial } from '#core/threshold/trial.ts';
import { gfOf } from '#core/units/forceScale.ts';

/** One operation of a noted run: many contours at one force, with one verdict for all. */
export interface RunEvidence {
  readonly operation: DepthOperation;
  readonly force: number;
  readonly passes: number;
  readonly speedMmPerS: number;
  readonly bladeMetres: number;
  readonly verdict: RunVerdict;
  /** What a person saw at the sheet: then it counts like a test cut, whatever the verdict. */
  readonly grade?: DepthGrade | undefined;
  readonly lot: string;
  readonly colour: string;
  /** Kind of the blade that cut, where anybody knows. */
  readonly bladeKind?: string | undefined;
}

/**
 * Whether a cut was made on the very lot and colour that lie on the machine.
 *
 * @example isOfLoaded({ lot: 'L1', colour: '' }, station.loaded) // true
 */
export function isOfLoaded(cut: Pick<TestCut, 'lot' | 'colour'>, { lot, colour }: LoadedSheet): boolean {
  return (cut.lot ?? '') === lot && (cut.colour ?? '') === colour;
}

/**
 * The trials of the loaded sheet at a station, as the model takes them: only those of its own lot and colour (the
 * others speak through what is believed of the sheet, and so do those of another kind of blade), those of an earlier
 * blade counting for less, and runs with them as weak evidence.
 *
 * @param cuts of the loaded condition on this machine, oldest first
 * @example listTrials(station, station.loaded, []) // []
 */
export function listTrials(
  { machine, blade }: Station,
  loaded: LoadedSheet,
  cuts: readonly TestCut[],
  runs: readonly RunEvidence[] = [],
): readonly Trial[] {
  const { material, colour, lot, condition } = loaded;
  const now = sheetFactor(material, colour, lot);
  const isLayered = hasLiner(condition.stack);
  const own = cuts
    .filter((cut) => isOfLoaded(cut, loaded) && isSameKind(cut.bladeKind, blade?.kind))
    .map((cut): Trial => {
      const trial = trialOf(cut, machine.forceScale, now / sheetFactor(material, cut.colour, cut.lot));
      const isOtherBlade = cut.bladeId != null && blade !== null && cut.bladeId !== blade.id;
      return isOtherBlade ? { ...trial, weight: EVIDENCE_WEIGHTS.otherBlade.weight } : trial;
    });
  const noted = runs
    .filter((run) => isOfLoaded(run, loaded) && isSameKind(run.bladeKind, blade?.kind))
    .flatMap((run) => readRun(run, machine, isLayered));
  return [...noted, ...own];
}

/**
 * A graded run as a trial; one that was only noted as a weak trial: its force gave one of the wanted grades.
 *
 * @example readRun({ operation: 'kiss', force: 90, passes: 1, speedMmPerS: 100, bladeMetres: 0, verdict: 'failed', lot: '', colour: '' }, machine, true) // []
 */
export function readRun(
  run: RunEvidence,
  { forceScale }: Station['machine'],
  isLayered: boolean,
): readonly Trial[] {
  if (run.force < forceScale.min || run.force > forceScale.max) return [];
  const { passes, speedMmPerS, bladeMetres } = run;
  const cut = { forceGf: gfOf(run.force, forceScale), passes, speedMmPerS, bladeMetres };
  if (run.grade !== undefined) return [{ ...cut, grade: run.grade }];
  const weight = weighVerdict(run.verdict);
  const wanted = targetGrades(run.operation, isLayered);
  const [first, last] = [wanted?.[0], wanted?.at(-1)];
  if (weight === 0 || first === undefined || last === undefined) return [];
  return [{ ...cut, grade: first, upTo: last, weight }];
}
