import { AppError } from '#core/errors/appError.ts';
import {
  factsOfField,
  fieldsOf,
  type SettingField,
  type SettingValues,
  type TabWay,
} from '#core/setting/settingFields.ts';
import { type Operation, OPERATION_WORDS } from '#core/stack/operation.ts';
import { perforationOf } from '#core/setting/derivePerforated.ts';
import type { Machine } from '#core/station/machine.ts';
import { requireExposureInRange } from '#core/units/depthScale.ts';
import { requireForceInRange, snapForce, type ForceScale } from '#core/units/forceScale.ts';
import { snapSpeed } from '#core/units/speedScale.ts';

const SCORE_START = 0.5;
const CREASE_TOOL = 'crease tool';

/**
 * Values as this machine can be set to them, with exactly the fields of the operation.
 *
 * Force and speed are snapped to the machine's steps; what lies outside its limits is refused, not bent. The tabs of a
 * perforation are made at the kiss force, at a force of their own (a half lifted tip, carton), or left whole; a crease has
 * no offset, no exposure and no overcut.
 *
 * @param kissForce the kept kiss force of the same sheet, machine and blade; `null` when there is none
 * @throws AppError `outOfRange`, saying what the machine can do; `badInput` for an operation it cannot do, or for tabs
 *   that are to follow a kiss setting that is not there
 * @example settleValues({ ...values, force: 92 }, 'kiss', machine, null).force // 90
 */
export function settleValues(
  given: SettingValues,
  operation: Operation,
  machine: Machine,
  kissForce: number | null,
): SettingValues {
  if (!machine.operations.includes(operation)) {
    throw new AppError(
      'badInput',
      `${machine.name} cannot do this: ${OPERATION_WORDS[operation].toLowerCase()}`,
    );
  }
  requireForceInRange(given.force, machine.forceScale);
  if (operation !== 'crease') requireExposureInRange(given.exposureMm, machine.depthScale);
  const { min, max, unit } = machine.speedScale;
  if (!(given.speed >= min && given.speed <= max)) {
    throw new AppError(
      'outOfRange',
      `speed ${given.speed} ${unit} is outside what this machine can do: ${min} to ${max} ${unit}`,
    );
  }
  const shared = {
    ...given,
    force: snapForce(given.force, machine.forceScale),
    speed: snapSpeed(given.speed, machine.speedScale),
  };
  const values = { ...shared, ...ofOperation(shared, operation, machine, kissForce) };
  for (const field of fieldsOf(operation)) requireInRange(field, values[field]);
  return keepFields(values, operation);
}

function ofOperation(
  values: SettingValues,
  operation: Operation,
  { forceScale }: Machine,
  kissForce: number | null,
): Partial<SettingValues> {
  switch (operation) {
    case 'kiss':
      return {};
    case 'through':
      return { strategy: values.strategy ?? (values.passes > 1 ? 'severalLight' : 'oneHeavy') };
    case 'perforated':
      return { ...settleTabs(values, forceScale, kissForce), ...perforationOf(values) };
    case 'score':
      return { depthShare: values.depthShare ?? SCORE_START };
    case 'crease':
      return { tool: values.tool?.trim() || CREASE_TOOL, offsetMm: 0, exposureMm: 0, overcutMm: 0 };
  }
}

/** How the tabs are made, and with what force. */
function settleTabs(
  { force, tabForce, tabWay: asked }: SettingValues,
  scale: ForceScale,
  kissForce: number | null,
): Pick<SettingValues, 'tabWay' | 'tabForce'> {
  const tabWay = asked ?? guessTabWay(tabForce, kissForce);
  if (tabWay === 'lifted') return { tabWay, tabForce: undefined };
  if (tabWay === 'kissForce') {
    if (kissForce !== null) return { tabWay, tabForce: kissForce };
    throw new AppError('badInput', 'keep a kiss setting first, or give the tabs a force of their own');
  }
  if (tabForce === undefined) throw new AppError('badInput', 'the force of the tabs is missing');
  requireForceInRange(tabForce, scale);
  if (tabForce >= force) {
    throw new AppError('badInput', `tabs at ${tabForce} would be cut as deep as the rest, at ${force}`);
  }
  return { tabWay, tabForce: snapForce(tabForce, scale) };
}

function guessTabWay(tabForce: number | undefined, kissForce: number | null): TabWay {
  if (tabForce !== undefined && tabForce !== kissForce) return 'ownForce';
  return kissForce === null ? 'lifted' : 'kissForce';
}

function requireInRange(field: SettingField, value: SettingValues[SettingField]): void {
  const { range, label, unit } = factsOfField(field);
  if (!range || typeof value !== 'number') return;
  if (value >= range[0] && value <= range[1]) return;
  const words = unit === 'mm' ? ' mm' : '';
  throw new AppError('outOfRange', `${label} ${value}${words} is outside ${range[0]} to ${range[1]}${words}`);
}

/** The six that every row has, and the operation's own; nothing left over from another operation. */
function keepFields(values: SettingValues, operation: Operation): SettingValues {
  const own = new Set<string>(fieldsOf(operation));
  const always = new Set(['force', 'exposureMm', 'speed', 'passes', 'offsetMm', 'overcutMm']);
  const kept = Object.entries(values).filter(
    ([field, value]) => value !== undefined && (own.has(field) || always.has(field)),
  );
  return Object.fromEntries(kept) as unknown as SettingValues;
}
