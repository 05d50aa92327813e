import type { SettingKey, SettingState } from '#core/setting/setting.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Stack } from '#core/stack/layer.ts';
import type { Family } from '#core/stack/families/families.ts';
import { caliperOf } from '#core/stack/measureStack.ts';
import { BELIEFS } from '#core/threshold/thresholdPriors.ts';

/** What is compared of a sheet. */
export interface RelativeSheet {
  readonly materialId: number;
  readonly conditionId: number;
  readonly maker: string;
  readonly family: Family;
  readonly stack: Stack;
  readonly darkness: number;
}

/** A kept setting of some sheet on some machine, its force in nominal or measured gf. */
export interface RelativeSetting {
  readonly key: SettingKey;
  readonly sheet: RelativeSheet;
  readonly values: SettingValues;
  readonly forceGf: number;
  readonly state: SettingState;
  readonly machineName: string;
}

/** A relative with why it is near and where to start from it. */
export interface Relative<Setting extends RelativeSetting = RelativeSetting> {
  readonly setting: Setting;
  /** 0 is the same; it has no unit. */
  readonly distance: number;
  readonly reasons: readonly string[];
  /** The force it speaks for here, gf, and a low start below it. */
  readonly impliedGf: number;
  readonly startGf: number;
}

/** A first force from a relative stays this far below what it speaks for: a shallow test cut costs less than a deep one. */
const START_LOW = 0.85;
const FARTHEST = 2.5;

/**
 * Settings of related sheets, nearest first, each with what makes it near and the force it speaks for: its own, scaled
 * by the difference of face, ink, laminate and pigment as the threshold model believes them.
 *
 * @param candidates settings of the same operation; the sheet's own on this machine and blade is left out
 * @example rankRelatives({ materialId: 1, conditionId: 4, maker: '', family: 'printableVinyl', stack: film, darkness: 0 }, { machineId: 1, bladeKind: '' }, [], 4) // []
 */
export function rankRelatives<Setting extends RelativeSetting>(
  sheet: RelativeSheet,
  at: { readonly machineId: number; readonly bladeKind: string },
  candidates: readonly Setting[],
  most: number,
): readonly Relative<Setting>[] {
  return candidates
    .filter(({ key }) => !isOwn(sheet, at, key))
    .map((setting) => relate(sheet, at, setting))
    .filter(({ distance }) => distance <= FARTHEST)
    .sort((a, b) => a.distance - b.distance || a.setting.key.conditionId - b.setting.key.conditionId)
    .slice(0, most);
}

function isOwn(sheet: RelativeSheet, at: { machineId: number; bladeKind: string }, key: SettingKey): boolean {
  const isHere = key.machineId === at.machineId && key.bladeKind === at.bladeKind;
  return key.conditionId === sheet.conditionId && isHere;
}

function relate<Setting extends RelativeSetting>(
  sheet: RelativeSheet,
  at: { readonly machineId: number; readonly bladeKind: string },
  setting: Setting,
): Relative<Setting> {
  const reasons: string[] = [];
  let distance = STATE_DISTANCE[setting.state];
  const add = (amount: number, reason: string) => {
    distance += amount;
    reasons.push(reason);
  };
  const other = setting.sheet;
  if (other.conditionId === sheet.conditionId) add(0, 'the same sheet');
  else if (other.materialId === sheet.materialId) add(0.25, 'the same material in another state');
  else if (other.family !== sheet.family) add(1.6, 'another family');
  else if (other.maker === sheet.maker) add(0.4, 'same maker and family');
  else add(0.7, 'same family');
  const face = faceUm(sheet.stack) - faceUm(other.stack);
  const ratio = Math.log(faceUm(sheet.stack) / faceUm(other.stack));
  if (Math.abs(face) >= 1) {
    add(Math.abs(ratio), `it is ${face > 0 ? 'thinner' : 'thicker'} by ${Math.abs(face).toFixed(0)} µm`);
  }
  const logShift = shiftOf(sheet, other, ratio, add);
  if (setting.key.machineId !== at.machineId) add(0.3, `on ${setting.machineName}, through grams`);
  if (setting.key.bladeKind !== at.bladeKind) add(0.25, `with a ${setting.key.bladeKind} blade`);
  const impliedGf = setting.forceGf * Math.exp(logShift);
  return { setting, distance, reasons, impliedGf, startGf: impliedGf * START_LOW };
}

const STATE_DISTANCE: Readonly<Record<SettingState, number>> = {
  proven: 0,
  tried: 0.1,
  predicted: 0.5,
  doubted: 0.6,
};

/** How much more force this sheet wants than the other, in ln, by the beliefs of the threshold model. */
function shiftOf(
  sheet: RelativeSheet,
  other: RelativeSheet,
  faceRatio: number,
  add: (amount: number, reason: string) => void,
): number {
  const ink = hasInk(sheet.stack) - hasInk(other.stack);
  if (ink !== 0) add(0.15, ink > 0 ? 'that one is not printed' : 'that one is printed');
  const laminate = (caliperOf(sheet.stack, 'laminate') - caliperOf(other.stack, 'laminate')) / 25;
  if (laminate !== 0) add(0.15, laminate > 0 ? 'that one has less laminate' : 'that one has more laminate');
  const dark = sheet.darkness - other.darkness;
  if (Math.abs(dark) >= 0.2) add(0.2 * Math.abs(dark), dark > 0 ? 'that one is paler' : 'that one is darker');
  return (
    BELIEFS.faceCaliper.mean * faceRatio +
    BELIEFS.ink.mean * ink +
    BELIEFS.laminate.mean * laminate +
    BELIEFS.darkness.mean * dark
  );
}

function faceUm(stack: Stack): number {
  return Math.max(1, caliperOf(stack, 'face') + caliperOf(stack, 'body'));
}

function hasInk(stack: Stack): number {
  return caliperOf(stack, 'ink') > 0 ? 1 : 0;
}
