import {
  bendEffect,
  bladeEffect,
  familyEffect,
  gapEffect,
  levelsEffect,
  machineEffect,
} from '#core/knowledge/sharedEffects.ts';
import type { SheetPlace } from '#core/knowledge/evidence.ts';
import { isSingleLayerFamily } from '#core/stack/families/families.ts';
import { caliperOf, measureStack } from '#core/stack/measureStack.ts';
import { LAYERED_PARAMETERS, P, SINGLE_PARAMETERS } from '#core/threshold/sheetModel/sheetParameters.ts';
import type { BeliefName, Priors } from '#core/threshold/thresholdPriors.ts';
import type { SheetTraits } from '#core/threshold/trial.ts';

/** One effect on one of a sheet's parameters: parameter += amount * effect. */
export interface Term {
  /** Position among the sheet's parameters, see sheetParameters. */
  readonly parameter: number;
  readonly effect: string;
  readonly amount: number;
}

/** An effect that belongs to one material alone. */
export interface OwnTerm extends Term {
  readonly belief: BeliefName;
}

/** How a sheet's parameters come from what is shared and what is the material's own: all of it linear. */
export interface SheetDesign {
  readonly isLayered: boolean;
  /** 12 on a layered sheet, 8 on a single layer. */
  readonly size: number;
  /** What the family's usual figures say, before any effect. */
  readonly constant: Float64Array;
  readonly shared: readonly Term[];
  readonly own: readonly OwnTerm[];
}

/**
 * The linear map from effects to the parameters of one sheet on one machine.
 *
 * @throws AppError `badInput` when the stack cannot be
 * @example designSheet(place, COMMON_PRIORS).size // 12
 */
export function designSheet(place: SheetPlace, priors: Priors): SheetDesign {
  const { traits } = place;
  const { isLayered } = measureStack(traits.stack);
  const size = (isLayered ? LAYERED_PARAMETERS : SINGLE_PARAMETERS).length;
  const constant = new Float64Array(size);
  const habit = priors.habits[traits.family];
  constant[P.threshold] = Math.log(habit.usualGf);
  constant[P.spread] = priors.beliefs.spread.mean;
  if (isLayered) constant[P.gap] = Math.log(Math.log(gapHabit(traits, priors).throughRatio));
  return {
    isLayered,
    size,
    constant,
    shared: [
      ...thresholdTerms(place, priors),
      ...shapeTerms(isLayered),
      ...gapTerms(traits, isLayered, priors),
      ...(place.isScaleGuessed ? levelTerms(place, isLayered, priors) : []),
    ],
    own: ownTerms(place, isLayered),
  };
}

function thresholdTerms(
  { traits, machineId, bladeKind = '' }: SheetPlace,
  { habits }: Priors,
): readonly Term[] {
  const on = (effect: string, amount: number): Term => ({ parameter: P.threshold, effect, amount });
  const faceRatio = Math.log(faceUm(traits) / habits[traits.family].midFaceUm);
  const terms = [
    on(familyEffect(traits.family), 1),
    on(machineEffect(machineId), -1),
    on(bladeEffect(bladeKind), bladeKind ? 1 : 0),
    on('faceCaliper', faceRatio),
    on('ink', caliperOf(traits.stack, 'ink') > 0 ? 1 : 0),
    on('laminate', caliperOf(traits.stack, 'laminate') / 25),
    on('darkness', traits.darkness),
  ];
  return terms.filter(({ amount }) => amount !== 0);
}

/** Where a bent scale is right whatever its bend: about the middle of what sheets want, ln gf. */
const BEND_AROUND = Math.log(100);

/**
 * What a guess at levels does: it shifts every threshold of the machine, and where levels rise more steeply than it says
 * sheets that want more force want less of it, and lie nearer together. How far from the middle a sheet lies is
 * taken from its family's usual force, so that all stays linear.
 */
function levelTerms({ machineId, traits }: SheetPlace, isLayered: boolean, priors: Priors): readonly Term[] {
  const { usualGf, midFaceUm } = priors.habits[traits.family];
  const thicker = priors.beliefs.faceCaliper.mean * Math.log(faceUm(traits) / midFaceUm);
  const bend = bendEffect(machineId);
  const narrower = [P.reachPartial, P.reachHanging, P.mat, ...(isLayered ? [P.gap] : [])];
  return [
    { parameter: P.threshold, effect: levelsEffect(machineId), amount: -1 },
    { parameter: P.threshold, effect: bend, amount: BEND_AROUND - Math.log(usualGf) - thicker },
    ...narrower.map((parameter) => ({ parameter, effect: bend, amount: -1 })),
  ];
}

function shapeTerms(isLayered: boolean): readonly Term[] {
  const same = (parameter: number, effect: string): Term => ({ parameter, effect, amount: 1 });
  const both = [
    same(P.reachPartial, 'reachPartial'),
    same(P.reachHanging, 'reachHanging'),
    same(P.passes, 'passes'),
    same(P.wear, 'wear'),
    same(P.speed, 'speed'),
  ];
  if (!isLayered) return [...both, same(P.mat, 'matSingle')];
  return [
    ...both,
    same(P.mat, 'matLayered'),
    same(P.scored, 'scored'),
    same(P.gouged, 'gouged'),
    same(P.breached, 'breached'),
  ];
}

function gapTerms(traits: SheetTraits, isLayered: boolean, priors: Priors): readonly Term[] {
  if (!isLayered) return [];
  const habit = gapHabit(traits, priors);
  const on = (effect: string, amount: number): Term => ({ parameter: P.gap, effect, amount });
  return [
    on(gapEffect(traits.family), 1),
    on('gapLiner', Math.log(caliperOf(traits.stack, 'liner') / habit.midLinerUm)),
    on('gapFace', Math.log(faceUm(traits) / habit.midFaceUm)),
  ].filter(({ amount }) => amount !== 0);
}

function ownTerms({ condition, lot, colour }: SheetPlace, isLayered: boolean): readonly OwnTerm[] {
  const own = (parameter: number, effect: string, belief: BeliefName): OwnTerm => ({
    parameter,
    effect,
    amount: 1,
    belief,
  });
  const terms = [
    own(P.threshold, 'threshold', 'sheet'),
    own(P.reachPartial, 'reachPartial', 'reachSheet'),
    own(P.reachHanging, 'reachHanging', 'reachSheet'),
    own(P.mat, 'mat', 'reachSheet'),
  ];
  if (isLayered) {
    terms.push(
      own(P.gap, 'gap', 'gapSheet'),
      own(P.scored, 'scored', 'sharesSheet'),
      own(P.gouged, 'gouged', 'sharesSheet'),
      own(P.breached, 'breached', 'sharesSheet'),
    );
  }
  if (condition !== 'bare') terms.push(own(P.threshold, `condition:${condition}`, 'condition'));
  if (lot) terms.push(own(P.threshold, `lot:${lot}`, 'lot'));
  if (colour) terms.push(own(P.threshold, `colour:${colour}`, 'colour'));
  return terms;
}

/** A family that is usually one layer has no usual liner; plain vinyl stands in for it. */
function gapHabit({ family }: SheetTraits, { habits }: Priors) {
  return isSingleLayerFamily(family) ? habits.plainVinyl : habits[family];
}

function faceUm({ stack }: SheetTraits): number {
  return caliperOf(stack, 'face') + caliperOf(stack, 'body');
}
