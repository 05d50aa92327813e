import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Material } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import type { LoadedSheet } from '#core/station/station.ts';
import { scaleForce, type ForceScale } from '#core/units/forceScale.ts';

/** One reason why a sheet wants another force than its material's settings say. */
export interface Correction {
  readonly kind: 'colour' | 'lot';
  readonly name: string;
  readonly forcePercent: number;
}

/**
 * What the colour and the lot of a sheet add to the settings of its material.
 *
 * @returns only corrections that are not zero, colour first
 * @example correctionsOf(material, 'slate', '').length // 1
 */
export function correctionsOf(material: Material, colour: string, lot: string): readonly Correction[] {
  const ofColour = material.details.colours.find((one) => one.name === colour);
  const ofLot = material.details.lots.find((one) => one.code === lot);
  const all: readonly Correction[] = [
    { kind: 'colour', name: colour, forcePercent: ofColour?.forcePercent ?? 0 },
    { kind: 'lot', name: lot, forcePercent: ofLot?.forcePercent ?? 0 },
  ];
  return all.filter(({ forcePercent }) => forcePercent !== 0);
}

/**
 * The factor that corrections put on a force.
 *
 * @example forceFactor([{ forcePercent: 6 }]) // 1.06
 */
export function forceFactor(corrections: readonly Pick<Correction, 'forcePercent'>[]): number {
  return corrections.reduce((factor, { forcePercent }) => factor * (1 + forcePercent / 100), 1);
}

/**
 * The factor that a colour and a lot of a material put on the force of its settings.
 *
 * @example sheetFactor(material, 'slate', '') // 1.1
 */
export function sheetFactor(material: Material, colour: string, lot: string): number {
  return forceFactor(correctionsOf(material, colour, lot));
}

/**
 * Corrections as one says them beside a force.
 *
 * @example wordCorrections([{ kind: 'lot', name: 'L7', forcePercent: 6 }]) // '+6 % for L7'
 */
export function wordCorrections(corrections: readonly Correction[]): string {
  return corrections
    .map(({ name, forcePercent }) => `${forcePercent > 0 ? '+' : ''}${forcePercent} % for ${name}`)
    .join(' · ');
}

/**
 * Values with what colour and lot add to their force, and to the force along tabs, on the machine's steps and inside its
 * scale.
 *
 * @example correctValues({ force: 60 }, null, 1).force // 60
 */
export function correctValues(values: SettingValues, scale: ForceScale, factor: number): SettingValues {
  if (factor === 1) return values;
  const { force, tabForce } = values;
  return {
    ...values,
    force: scaleForce(force, factor, scale),
    ...(tabForce === undefined ? {} : { tabForce: scaleForce(tabForce, factor, scale) }),
  };
}

/**
 * The values of a material's setting on the very sheet that is loaded: one figure for the Bench, Faults and jobs.
 *
 * @example valuesOnSheet(values, machine, station.loaded).force // 90
 */
export function valuesOnSheet(
  values: SettingValues,
  { forceScale }: Pick<Machine, 'forceScale'>,
  { material, colour, lot }: Pick<LoadedSheet, 'material' | 'colour' | 'lot'>,
): SettingValues {
  return correctValues(values, forceScale, sheetFactor(material, colour, lot));
}

/**
 * The values of a material's setting from those that were right on the loaded sheet.
 *
 * @example valuesOffSheet(values, machine, station.loaded).force // 90
 */
export function valuesOffSheet(
  values: SettingValues,
  { forceScale }: Pick<Machine, 'forceScale'>,
  { material, colour, lot }: Pick<LoadedSheet, 'material' | 'colour' | 'lot'>,
): SettingValues {
  return correctValues(values, forceScale, 1 / sheetFactor(material, colour, lot));
}
