import {
  factsOfField,
  type SettingField,
  type SettingValues,
  STRATEGY_WORDS,
} from '#core/setting/settingFields.ts';
import type { Machine } from '#core/station/machine.ts';
import { forceUnit, sayForce } from '#core/units/forceScale.ts';
import { lengthUnit, say } from '#web/islands/shared/units.ts';

/** The unit after a field's figure on this machine; empty for words. */
export function unitOf(field: SettingField, machine: Pick<Machine, 'forceScale' | 'speedScale'>): string {
  switch (factsOfField(field).unit) {
    case 'force':
      return forceUnit(machine.forceScale);
    case 'speed':
      return machine.speedScale.unit;
    case 'mm':
      return lengthUnit();
    case 'share':
      return 'of 1';
    case 'passes':
    case 'word':
      return '';
  }
}

/** A value in words, with its unit. @example describeValue('force', 90, gannet) // '90 gf' */
export function describeValue(
  field: SettingField,
  value: SettingValues[SettingField],
  machine: Pick<Machine, 'forceScale' | 'speedScale'>,
): string {
  if (value === undefined) return 'not said';
  if (field === 'strategy') return STRATEGY_WORDS[value as NonNullable<SettingValues['strategy']>];
  if (factsOfField(field).unit === 'mm') return say(`${value} mm`);
  return sayForce(String(value), unitOf(field, machine)).trim();
}
