import { isSingleLayerFamily } from '#core/stack/layer.ts';
import { caliperOf, measureStack } from '#core/stack/measureStack.ts';
import type { NormalPrior } from '#core/threshold/fitCategorical.ts';
import { LAYERED_PARAMETERS, SINGLE_PARAMETERS } from '#core/threshold/sheetParameters.ts';
import { BELIEFS, FAMILY_HABITS, type Belief } from '#core/threshold/thresholdPriors.ts';
import type { SheetTraits } from '#core/threshold/trial.ts';

/**
 * What is believed of a sheet before it is cut, from its family and its stack alone.
 *
 * @returns means and precisions in the order of LAYERED_PARAMETERS, or of SINGLE_PARAMETERS without a liner
 * @throws AppError `badInput` when the stack cannot be
 */
export function sheetPrior(sheet: SheetTraits): NormalPrior {
  const depths = measureStack(sheet.stack);
  const threshold = believeThreshold(sheet, depths.isLayered);
  const shared = {
    threshold,
    spread: BELIEFS.spread,
    passes: BELIEFS.passes,
    wear: BELIEFS.wear,
    speed: BELIEFS.speed,
  };
  const reach = { reachPartial: BELIEFS.reachPartial, reachHanging: BELIEFS.reachHanging };
  if (!depths.isLayered) {
    return assemble(SINGLE_PARAMETERS, { ...shared, ...reach, mat: BELIEFS.matSingle });
  }
  return assemble(LAYERED_PARAMETERS, {
    ...shared,
    ...reach,
    gap: believeGap(sheet, depths.linerUm),
    scored: BELIEFS.scored,
    gouged: BELIEFS.gouged,
    breached: BELIEFS.breached,
    mat: BELIEFS.matLayered,
  });
}

type Moments = Pick<Belief, 'mean' | 'sd'>;

function believeThreshold(sheet: SheetTraits, isLayered: boolean): Moments {
  const habit = FAMILY_HABITS[sheet.family];
  const offset = isLayered ? BELIEFS.layeredOffset : BELIEFS.singleOffset;
  const ratio = Math.log(faceUm(sheet) / habit.midFaceUm);
  const hasInk = caliperOf(sheet.stack, 'ink') > 0 ? 1 : 0;
  const laminate = caliperOf(sheet.stack, 'laminate') / 25;
  return addUp([
    [1, { mean: Math.log(habit.usualGf), sd: 0 }],
    [1, offset],
    [1, BELIEFS.sheet],
    [1, BELIEFS.machine],
    [ratio, BELIEFS.faceCaliper],
    [hasInk, BELIEFS.ink],
    [laminate, BELIEFS.laminate],
    [sheet.darkness, BELIEFS.darkness],
  ]);
}

function believeGap(sheet: SheetTraits, linerUm: number): Moments {
  const habit = FAMILY_HABITS[sheet.family];
  const usual = isSingleLayerFamily(sheet.family) ? FAMILY_HABITS.plainVinyl : habit;
  return addUp([
    [1, { mean: Math.log(Math.log(usual.throughRatio)), sd: 0 }],
    [1, BELIEFS.gap],
    [Math.log(linerUm / usual.midLinerUm), BELIEFS.gapLiner],
    [Math.log(faceUm(sheet) / usual.midFaceUm), BELIEFS.gapFace],
  ]);
}

function faceUm(sheet: SheetTraits): number {
  return caliperOf(sheet.stack, 'face') + caliperOf(sheet.stack, 'body');
}

function addUp(terms: readonly (readonly [number, Moments])[]): Moments {
  const mean = terms.reduce((sum, [amount, belief]) => sum + amount * belief.mean, 0);
  const variance = terms.reduce((sum, [amount, belief]) => sum + (amount * belief.sd) ** 2, 0);
  return { mean, sd: Math.sqrt(variance) };
}

function assemble<Name extends string>(
  names: readonly Name[],
  beliefs: Readonly<Record<Name, Moments>>,
): NormalPrior {
  return {
    mean: Float64Array.from(names, (name) => beliefs[name].mean),
    precision: Float64Array.from(names, (name) => 1 / beliefs[name].sd ** 2),
  };
}
