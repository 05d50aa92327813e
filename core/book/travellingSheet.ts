import { AppError } from '#core/errors/appError.ts';
import type { BookSetting } from '#core/book/bookSetting.ts';
import type { SettingKey, SettingRevision, SettingState } from '#core/setting/setting.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { transferValues } from '#core/setting/transferValues.ts';
import type { ConditionKind, Material } from '#core/stack/material.ts';
import { NO_DETAILS } from '#core/stack/materialDetails.ts';
import type { Stack } from '#core/stack/layer.ts';
import type { Machine, MachineKind } from '#core/station/machine.ts';
import type { Operation } from '#core/stack/operation.ts';
import { gfOf, isGuessed, sayForce, type ForceScale } from '#core/units/forceScale.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';

/** A machine as a travelling sheet tells it: enough to know it again, and to know what its figures mean. */
export interface FarMachine {
  readonly name: string;
  readonly kind: MachineKind;
  readonly scale: Pick<ForceScale, 'kind' | 'min' | 'max' | 'step'>;
  /** Its gf are somebody's guess: levels that nobody weighed. */
  readonly isGuessed: boolean;
}

/** A setting on its way: force in figures of its machine and in gf, speed in mm/s. */
export interface FarSetting {
  readonly state: ConditionKind;
  /** Which of the machines that travel with it. */
  readonly machine: number;
  readonly blade: string;
  readonly operation: Operation;
  readonly values: SettingValues;
  readonly gf: number;
  readonly tabGf?: number | undefined;
  readonly mmPerS: number;
  /** How far it was trusted where it comes from. */
  readonly trust: SettingState;
  readonly reason: string;
}

/** A material as its maker sells it: without what is only of one workshop, its lots, stock, rests and notes. */
export type Pack = Omit<Material, 'id' | 'version' | 'isArchived' | 'conditions'> & {
  readonly conditions: readonly {
    readonly kind: ConditionKind;
    readonly stack: Stack;
    readonly coverage: number | null;
  }[];
};

/** A sheet with the settings that were kept of it, as they go from one workshop to another. Nobody's name goes along. */
export interface TravellingSheet {
  readonly material: Pack;
  readonly machines: readonly FarMachine[];
  readonly settings: readonly FarSetting[];
}

/** What is packed: a setting with how far it is trusted. */
export interface PackedSetting {
  readonly key: SettingKey;
  readonly revision: Pick<SettingRevision, 'values' | 'reason'>;
  readonly state: SettingState;
}

/** Best first: where not all of them fit, the last are left behind. */
const TRUST: readonly SettingState[] = ['proven', 'tried', 'predicted', 'doubted'];

/**
 * Packs a sheet with settings of its own; those of machines or states that are not given stay.
 *
 * @example packSheet(material, [], [machine]).settings // []
 */
export function packSheet(
  material: Material,
  settings: readonly PackedSetting[],
  machines: readonly Machine[],
): TravellingSheet {
  const states = new Map(material.conditions.map(({ id, kind }) => [id, kind]));
  const used = machines.filter(({ id }) => settings.some(({ key }) => key.machineId === id));
  const packed = settings.flatMap(({ key, revision: { values, reason }, state: trust }): FarSetting[] => {
    const state = states.get(key.conditionId);
    const machine = used.findIndex(({ id }) => id === key.machineId);
    const from = used[machine];
    if (!state || !from) return [];
    const gf = (force: number) => round(gfOf(force, from.forceScale));
    return [
      {
        state,
        machine,
        blade: key.bladeKind,
        operation: key.operation,
        values,
        gf: gf(values.force),
        ...(values.tabForce === undefined ? {} : { tabGf: gf(values.tabForce) }),
        mmPerS: round(speedToMmPerS(values.speed, from.speedScale)),
        trust,
        reason: reason.slice(0, 80),
      },
    ];
  });
  return {
    material: packOf(material),
    machines: used.map(({ name, kind, forceScale }) => {
      const { min, max, step } = forceScale;
      return {
        name,
        kind,
        scale: { kind: forceScale.kind, min, max, step },
        isGuessed: isGuessed(forceScale),
      };
    }),
    settings: packed.toSorted((a, b) => TRUST.indexOf(a.trust) - TRUST.indexOf(b.trust)),
  };
}

function packOf({ id, version, isArchived, conditions, details, ...pack }: Material): Pack {
  const { lots, stock, remnants, note } = NO_DETAILS;
  return {
    ...pack,
    details: { ...details, lots, stock, remnants, note },
    conditions: conditions.map(({ kind, stack, coverage }) => ({ kind, stack, coverage: coverage ?? null })),
  };
}

const round = (value: number) => Math.round(100 * value) / 100;

/** A setting on one of the receiver's machines, with how its force came there. */
export interface ArrivedSetting {
  readonly setting: BookSetting;
  /** `figures`: taken as they stand, the scales are alike; `grams`: through gf; `guess`: through gf that nobody weighed. */
  readonly by: 'figures' | 'grams' | 'guess';
}

/**
 * What comes to a material that is here already: only states that it lacks. `null` where it lacks none.
 *
 * @example lackingStates(material, packSheet(material, [], []).material) // null
 */
export function lackingStates(there: Material, pack: Pack): Pack | null {
  const lacking = pack.conditions.filter(({ kind }) =>
    there.conditions.every((state) => state.kind !== kind),
  );
  if (lacking.length === 0) return null;
  const { id, version, isArchived, ...kept } = there;
  const states = there.conditions.map(({ kind, stack, coverage }) => ({
    kind,
    stack,
    coverage: coverage ?? null,
  }));
  return { ...kept, conditions: [...states, ...lacking] };
}

/**
 * A setting that came along, on a machine of the receiver's: through grams where both machines know theirs, by its
 * figures where the scales are alike, and else by a guess that says so.
 *
 * @throws AppError `badInput` for a machine that did not come along
 * @example arrive(farSheet, farSheet.settings[0], machine).by // 'grams'
 */
export function arrive(sheet: TravellingSheet, one: FarSetting, to: Machine): ArrivedSetting {
  const from = sheet.machines[one.machine];
  if (!from) throw new AppError('badInput', 'the code names a machine that it does not hold');
  const isGuess = from.isGuessed || isGuessed(to.forceScale);
  const by = !isGuess ? 'grams' : isAlike(from.scale, to.forceScale) ? 'figures' : 'guess';
  const { values } = one;
  const gram: ForceScale = { kind: 'gramForce', min: 0, max: 1e5, step: 0.01, gfAtZero: 0, gfPerUnit: 1 };
  const travelled: SettingValues = {
    ...values,
    ...(by === 'figures' ? {} : { force: one.gf }),
    ...(by === 'figures' || one.tabGf === undefined ? {} : { tabForce: one.tabGf }),
    speed: one.mmPerS,
  };
  const source: Machine = {
    ...to,
    forceScale: by === 'figures' ? to.forceScale : gram,
    speedScale: { unit: 'mm/s', min: 0.01, max: 1e4, step: 0.01, mmPerSPerUnit: 1 },
  };
  const unit = from.scale.kind === 'level' ? 'level' : 'gf';
  const told = `${from.name}, ${sayForce(values.force, unit)}, ${one.trust} there`;
  return {
    by,
    setting: {
      maker: sheet.material.maker,
      material: sheet.material.name,
      state: one.state,
      machine: to.name,
      blade: one.blade,
      operation: one.operation,
      values: transferValues(travelled, source, to).values,
      reason: `from a code: ${told}${by === 'guess' ? '; its grams are a guess' : ''}`.slice(0, 300),
      author: '',
      keptAt: '',
    },
  };
}

function isAlike(a: FarMachine['scale'], b: ForceScale): boolean {
  return a.kind === b.kind && a.min === b.min && a.max === b.max && a.step === b.step;
}

/**
 * Which of the receiver's machines a far one is most like: by kind, which it must share, then by scale, then by name.
 *
 * @example likeliestMachine(farSheet.machines[0], [machine]).id // 1
 */
export function likeliestMachine(far: FarMachine, here: readonly Machine[]): Machine | null {
  const points = ({ name, forceScale }: Machine) =>
    (isAlike(far.scale, forceScale) ? 2 : 0) + (name === far.name ? 1 : 0);
  const ofKind = here.filter(({ kind }) => kind === far.kind);
  return ofKind.toSorted((a, b) => points(b) - points(a))[0] ?? null;
}
