import { itemAt } from '#core/collections/itemAt.ts';
import { correctionsOf, correctValues, forceFactor, type Correction } from '#core/setting/correctForce.ts';
import { findOtherWay, type OtherWay } from '#core/answer/findOtherWay.ts';
import { weighFlaws } from '#core/answer/weighFlaws.ts';
import { adviseNextCut, type CutAdvice } from '#core/dialIn/adviseNextCut.ts';
import { isCutThisWay } from '#core/dialIn/cutThisWay.ts';
import { HARM_CUTS } from '#core/dialIn/proposeNextCut.ts';
import { chooseLadder, CONFIRMING_CELLS, LADDER_CELLS } from '#core/dialIn/chooseLadder.ts';
import { findSurprise, type Surprise } from '#core/dialIn/findSurprise.ts';
import { darknessOf, gatherEvidence } from '#core/dialIn/gatherEvidence.ts';
import { listTrials, type RunEvidence } from '#core/dialIn/listTrials.ts';
import type { TestCut } from '#core/dialIn/testCut.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import type { SheetPlace } from '#core/knowledge/evidence.ts';
import { seedFromText } from '#core/random/seededRandom.ts';
import type { SettingRevision, SettingState } from '#core/setting/setting.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { suggestValues, type Suggestion } from '#core/setting/suggestValues.ts';
import { targetGrades } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { hasLiner } from '#core/stack/layer.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import { estimateTipDepth, type TipDepth } from '#core/threshold/estimateTipDepth.ts';
import {
  findWindow,
  outlookAt,
  targetIndexes,
  type ForceOutlook,
  type ForceWindow,
} from '#core/threshold/findWindow.ts';
import type { ThresholdModel, ThresholdPosterior } from '#core/threshold/posterior.ts';
import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import type { SheetBelief, ThresholdQuestion, Trial } from '#core/threshold/trial.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';
import { chooseAxis, spreadForces, type ForceAxis } from '#core/threshold/spreadForces.ts';
import { gfOf, gfToForce, isGuessed } from '#core/units/forceScale.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';

/** What is known of a setting before it is answered for. */
export interface KnownSetting {
  readonly revision: SettingRevision;
  readonly state: SettingState;
  readonly stateReason?: string;
}

/** While one cut is expected to raise the chance by more than this, a card spreads over the whole range. */
const FAR_FROM_KNOWN = 0.05;

/** What an answer may be told beside the test cuts. */
export interface AnswerContext {
  /**
   * Answers for so many passes instead of the kept or usual number; a kept force for another number of passes says
   * nothing here, so the answer is then a prediction.
   */
  readonly passes?: number | null;
  /** Another speed (machine's scale) and exposure (mm) than the kept or usual ones, for the same reason. */
  readonly speed?: number | null;
  readonly exposureMm?: number | null;
  /** What the book leaves to be believed of the sheet, without colour and lot; from its stack alone when left out. */
  readonly belief?: SheetBelief | null;
  readonly runs?: readonly RunEvidence[];
  /** What a cut liner or a scarred mat costs here, in test cuts. */
  readonly harmCuts?: number | undefined;
  /** The threshold model to ask, by its seed. */
  readonly makeModel?: (seed: number) => ThresholdModel;
}

/** The answer to "what do I set?" for one operation at a station. */
export interface Answer {
  readonly operation: DepthOperation;
  readonly state: SettingState;
  readonly stateReason: string;
  /** What colour and lot add to the kept force; it is in `values` already. */
  readonly corrections: readonly Correction[];
  /** The values to set: as kept, or the best that is known; only a guess while the state is predicted. */
  readonly values: SettingValues;
  readonly suggestion: Suggestion;
  readonly axis: ForceAxis;
  readonly window: ForceWindow;
  /** The chances of the force in `values`. */
  readonly outlook: ForceOutlook;
  readonly tip: TipDepth;
  readonly advice: CutAdvice;
  /** The force of the next test cut, on the machine's scale: it asks, and need not be right. */
  readonly advisedForce: number;
  /** Where force alone does not do: the passes and speed to go on with, and what is believed of them; else `null`. */
  readonly otherWay: OtherWay | null;
  /** The chance of the last grade where it was a surprise, else `null`. */
  readonly surprise: Surprise | null;
  /** Forces of the next test card, on the machine's scale: a ladder first, later the best with a cell either side. */
  readonly ladder: readonly number[];
  /** The force the model would take now, on the machine's scale. */
  readonly bestForce: number;
  readonly model: string;
}

/**
 * Answers for what is loaded at a station: the kept setting if there is one, else a start from the stack, with the
 * window that all test cuts of this sheet on this machine leave, and what to do next.
 *
 * @param cuts test cuts of the loaded condition on this machine, of any operation: they share one set of thresholds
 * @returns `null` when nothing is loaded, or the sheet has no such operation
 * @example composeAnswer(station, 'kiss', null, [])?.state // 'predicted'
 */
export function composeAnswer(
  station: Station,
  operation: DepthOperation,
  known: KnownSetting | null,
  cuts: readonly TestCut[],
  context: AnswerContext = {},
): Answer | null {
  const { machine, blade, loaded } = station;
  if (!loaded) return null;
  const { material, condition } = loaded;
  const isLayered = hasLiner(condition.stack);
  if (targetGrades(operation, isLayered) === null) return null;
  const suggest = (forceGf: number) => suggestValues(material, condition, machine, blade, operation, forceGf);
  const usual = known?.revision.values ?? suggest(100).values;
  const start = {
    ...usual,
    passes: context.passes ?? usual.passes,
    speed: context.speed ?? usual.speed,
    // One exposure for a sheet: what it was set to for another cut stays.
    exposureMm:
      context.exposureMm ?? known?.revision.values.exposureMm ?? cuts.at(-1)?.exposureMm ?? usual.exposureMm,
  };
  const kept = known && isSameWay(known.revision.values, start) ? known : null;
  const asked = believe(station, loaded, start, cuts, context);
  const { harmCuts = HARM_CUTS } = context;
  return assemble({ station, loaded, operation, kept, start, asked, suggest, cuts, harmCuts });
}

interface Parts {
  readonly station: Station;
  readonly loaded: LoadedSheet;
  readonly operation: DepthOperation;
  readonly kept: KnownSetting | null;
  readonly start: SettingValues;
  readonly asked: SheetQuestion;
  readonly suggest: (forceGf: number) => Suggestion;
  readonly cuts: readonly TestCut[];
  readonly harmCuts: number;
}

function assemble({
  station,
  loaded,
  operation,
  kept,
  start,
  asked,
  suggest,
  cuts,
  harmCuts,
}: Parts): Answer {
  const { forceScale } = station.machine;
  const { posterior, trials, corrections, factor } = asked;
  const target = targetIndexes(posterior, operation);
  const keptGf = kept ? gfOf(kept.revision.values.force, forceScale) * factor : null;
  const axis = chooseAxis(
    posterior,
    target.last,
    [...(keptGf === null ? [] : [keptGf]), ...trials.map((trial) => trial.forceGf)],
    forceScale,
  );
  const forcesGf = spreadForces(axis, forceScale);
  const found = findWindow(posterior, operation, forcesGf);
  const wanted = posterior.grades.slice(target.first, target.last + 1);
  const alike = cuts.filter((cut) => isCutThisWay(cut, asked.question.conditions));
  const window = { ...found, best: weighFlaws(found.outlooks, found.best, alike, wanted) };
  const { advice, surprise } = advise(asked, operation, forcesGf, window, harmCuts);
  const toScale = (forceGf: number) => gfToForce(forceGf, forceScale);
  // What to set is the best that is known; what to try next is a question of its own.
  const suggestion = suggest(window.best.forceGf);
  const values = kept
    ? correctValues(kept.revision.values, forceScale, factor)
    : { ...start, force: suggestion.values.force };
  const valueGf = gfOf(values.force, forceScale);
  const isFar = advice.kind === 'cut' && advice.next.gain > FAR_FROM_KNOWN;
  const ladder = chooseLadder(posterior, operation, forcesGf, isFar ? LADDER_CELLS : CONFIRMING_CELLS);
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
    tip: estimateTipDepth(posterior, loaded.condition.stack, valueGf, values.exposureMm),
    advice,
    advisedForce: toScale(advice.next.forceGf),
    otherWay: isSettled(advice) ? findOtherWay(asked, operation, station.machine, window.best.right) : null,
    surprise,
    ladder: [...new Set(ladder.map(toScale))],
    bestForce: toScale(window.best.forceGf),
    model: posterior.model,
  };
}

/** Whether cutting on at other forces teaches no more. */
function isSettled({ kind }: CutAdvice): boolean {
  return kind !== 'cut' && kind !== 'repeat';
}

/** What to do next, by the cuts at this number of passes and about this speed. */
function advise(
  { posterior, trials, model, question }: SheetQuestion,
  operation: DepthOperation,
  forcesGf: readonly number[],
  { best }: ForceWindow,
  harmCuts: number,
): { readonly advice: CutAdvice; readonly surprise: Surprise | null } {
  const relevant = trials.filter((trial) => isCutThisWay(trial, question.conditions) && !isRun(trial));
  const surprise = findSurprise(model, question, relevant.length === 0 ? [] : trials);
  const surpriseGf = surprise?.forceGf ?? null;
  const facts = { surpriseGf, harmCuts };
  return { surprise, advice: adviseNextCut(posterior, operation, forcesGf, best, relevant, facts) };
}

/** Runs are weak evidence without a load of their own: they do not answer "was anything cut here yet?". */
function isRun({ upTo, load }: Trial): boolean {
  return upTo !== undefined && load === undefined;
}

/** Whether a kept force says something here: with another number of passes or speed it does not. */
function isSameWay(kept: SettingValues, asked: Pick<SettingValues, 'passes' | 'speed'>): boolean {
  return kept.passes === asked.passes && kept.speed === asked.speed;
}

/** The model's question about the loaded sheet and the trials it is answered from. */
export interface SheetQuestion {
  readonly model: ThresholdModel;
  readonly question: ThresholdQuestion;
  readonly trials: readonly Trial[];
  readonly posterior: ThresholdPosterior;
  readonly corrections: readonly Correction[];
  readonly factor: number;
}

/**
 * What the test cuts leave to be believed of the sheet on the machine, on its own colour and lot.
 *
 * @example believe(station, station.loaded, { passes: 1, speed: 100 }, []).trials // []
 */
export function believe(
  station: Station,
  loaded: LoadedSheet,
  { passes, speed }: Pick<SettingValues, 'passes' | 'speed'>,
  cuts: readonly TestCut[],
  { belief, runs = [], makeModel = sheetModel }: AnswerContext = {},
): SheetQuestion {
  const { machine, blade } = station;
  const { material, condition, colour, lot } = loaded;
  const corrections = correctionsOf(material, colour, lot);
  const factor = forceFactor(corrections);
  const trials = listTrials(station, loaded, cuts, runs);
  const model = makeModel(seedFromText(`${condition.id}/${machine.id}`));
  const question: ThresholdQuestion = {
    belief: correctBelief(belief ?? believeAlone(station, loaded, cuts, runs), factor),
    conditions: {
      passes,
      speedMmPerS: speedToMmPerS(speed, machine.speedScale),
      bladeMetres: blade?.travelMetres ?? 0,
    },
  };
  return { model, question, trials, posterior: model.fit(question, trials), corrections, factor };
}

/**
 * The place of the loaded sheet in the book: what the knowledge of other sheets is asked for.
 *
 * @example placeOf(station, station.loaded).materialId // 1
 */
export function placeOf(station: Station, loaded: LoadedSheet): SheetPlace {
  const { material, condition, lot, colour } = loaded;
  return {
    traits: { family: material.family, stack: condition.stack, darkness: darknessOf(material, colour) },
    materialId: material.id,
    machineId: station.machine.id,
    isScaleGuessed: isGuessed(station.machine.forceScale),
    condition: condition.kind,
    lot,
    colour,
    bladeKind: station.blade?.kind ?? '',
  };
}

/** What is believed without a book: the stack, and other lots and colours of the very sheet. */
function believeAlone(
  station: Station,
  loaded: LoadedSheet,
  cuts: readonly TestCut[],
  runs: readonly RunEvidence[],
): SheetBelief {
  const { material, condition } = loaded;
  const all = gatherEvidence([{ material, condition, machine: station.machine, cuts, runs }]);
  return sheetPrior(placeOf(station, loaded), null, { learnt: [], all });
}

/** What is believed of a plain sheet, moved by what colour and lot are known to add. */
function correctBelief(belief: SheetBelief, factor: number): SheetBelief {
  const mean = Float64Array.from(belief.mean);
  mean[P.threshold] = itemAt(mean, P.threshold) + Math.log(factor);
  return { ...belief, mean, precision: Float64Array.from(belief.precision) };
}
