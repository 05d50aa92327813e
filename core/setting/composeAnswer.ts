import { correctionsOf, correctValues, forceFactor, type Correction } from '#core/setting/correctForce.ts';
import { adviseNextCut, type CutAdvice } from '#core/dialIn/adviseNextCut.ts';
import { trialOf, type TestCut } from '#core/dialIn/testCut.ts';
import { seedFromText } from '#core/random/seededRandom.ts';
import type { SettingRevision, SettingState, SettingValues } from '#core/setting/setting.ts';
import { suggestValues, type Suggestion } from '#core/setting/suggestValues.ts';
import type { Operation } from '#core/stack/depthGrade.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import { estimateTipDepth, type TipDepth } from '#core/threshold/estimateTipDepth.ts';
import {
  findWindow,
  outlookAt,
  targetIndexes,
  type ForceOutlook,
  type ForceWindow,
} from '#core/threshold/findWindow.ts';
import type { ThresholdModel } from '#core/threshold/posterior.ts';
import { singleSheetModel } from '#core/threshold/singleSheetModel.ts';
import { chooseAxis, spreadForces, type ForceAxis } from '#core/threshold/spreadForces.ts';
import { gfOf, gfToForce } from '#core/units/forceScale.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';

/** What is known of a setting before it is answered for. */
export interface KnownSetting {
  readonly revision: SettingRevision;
  readonly state: SettingState;
  readonly stateReason?: string;
}

/** The answer to "what do I set?" for one operation at a station. */
export interface Answer {
  readonly operation: Operation;
  readonly state: SettingState;
  readonly stateReason: string;
  /** What colour and lot add to the kept force; it is in `values` already. */
  readonly corrections: readonly Correction[];
  /** The values to set; only a start to test from while the state is predicted. */
  readonly values: SettingValues;
  readonly suggestion: Suggestion;
  readonly axis: ForceAxis;
  readonly window: ForceWindow;
  /** The chances of the force in `values`. */
  readonly outlook: ForceOutlook;
  readonly tip: TipDepth;
  readonly advice: CutAdvice;
  readonly advisedForce: number;
  /** The force the model would take now, on the machine's scale. */
  readonly bestForce: number;
  readonly model: string;
}

/**
 * Answers for what is loaded at a station: the kept setting if there is one, else a start from the stack, with the
 * window that all test cuts of this sheet on this machine leave, and what to do next.
 *
 * @param cuts test cuts of the loaded condition on this machine, of any operation: they share one set of thresholds
 * @param askedPasses answers for so many passes instead of the kept or usual number; a kept force for another number
 *   of passes says nothing here, so the answer is then a prediction
 * @param makeModel the threshold model to ask, by its seed
 * @returns `null` when nothing is loaded, or the sheet has no such operation
 */
export function composeAnswer(
  station: Station,
  operation: Operation,
  known: KnownSetting | null,
  cuts: readonly TestCut[],
  askedPasses: number | null = null,
  makeModel: (seed: number) => ThresholdModel = singleSheetModel,
): Answer | null {
  const { machine, blade, loaded } = station;
  if (!loaded) return null;
  const { material, condition } = loaded;
  if (operation === 'kiss' && !condition.stack.some((layer) => layer.role === 'liner')) return null;
  const suggest = (forceGf: number) => suggestValues(material, condition, machine, blade, operation, forceGf);
  const usual = known?.revision.values ?? suggest(100).values;
  const start = { ...usual, passes: askedPasses ?? usual.passes };
  const kept = known && known.revision.values.passes === start.passes ? known : null;
  const { posterior, trials, corrections, factor, seed } = believe(station, loaded, start, cuts, makeModel);
  const target = targetIndexes(posterior, operation);
  const keptGf = kept ? gfOf(kept.revision.values.force, machine.forceScale) * factor : null;
  const axis = chooseAxis(
    posterior,
    target.last,
    [...(keptGf === null ? [] : [keptGf]), ...trials.map((trial) => trial.forceGf)],
    machine.forceScale,
  );
  const forcesGf = spreadForces(axis, machine.forceScale);
  const window = findWindow(posterior, operation, forcesGf);
  const relevant = trials.filter((trial) => trial.passes === start.passes);
  const advice = adviseNextCut(posterior, operation, forcesGf, window.best, relevant, seed);
  const advisedForce = gfToForce(advice.next.forceGf, machine.forceScale);
  const suggestion = suggest(kept ? window.best.forceGf : advice.next.forceGf);
  const values = kept
    ? correctValues(kept.revision.values, machine.forceScale, factor)
    : { ...start, force: suggestion.values.force };
  const valueGf = gfOf(values.force, machine.forceScale);
  return {
    operation,
    state: kept?.state ?? 'predicted',
    stateReason: kept?.stateReason ?? '',
    corrections,
    values,
    suggestion,
    axis,
    window,
    outlook: outlookAt(posterior, target, valueGf),
    tip: estimateTipDepth(posterior, condition.stack, valueGf, values.exposureMm),
    advice,
    advisedForce,
    bestForce: gfToForce(window.best.forceGf, machine.forceScale),
    model: posterior.model,
  };
}

/** What the test cuts leave to be believed of the sheet on the machine, on its own colour and lot. */
function believe(
  { machine, blade }: Station,
  loaded: LoadedSheet,
  { passes, speed }: SettingValues,
  cuts: readonly TestCut[],
  makeModel: (seed: number) => ThresholdModel,
) {
  const { material, condition, colour, lot } = loaded;
  const corrections = correctionsOf(material, colour, lot);
  const factor = forceFactor(corrections);
  const trials = cuts.map((cut) => {
    const then = forceFactor(correctionsOf(material, cut.colour, cut.lot));
    return trialOf(cut, machine.forceScale, factor / then);
  });
  const seed = seedFromText(`${condition.id}/${machine.id}`);
  const posterior = makeModel(seed).fit(
    {
      sheet: { family: material.family, stack: condition.stack, darkness: darknessOf(loaded) },
      conditions: {
        passes,
        speedMmPerS: speedToMmPerS(speed, machine.speedScale),
        bladeMetres: blade?.travelMetres ?? 0,
      },
    },
    trials,
  );
  return { posterior, trials, corrections, factor, seed };
}

/** The pigment of the colour on the machine, or of the material's own. */
function darknessOf({ material, colour }: LoadedSheet): number {
  return material.details.colours.find(({ name }) => name === colour)?.darkness ?? material.darkness;
}
