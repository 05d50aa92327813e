import { z } from 'zod';
import { SETTING_STATES, type SettingState } from '#core/setting/setting.ts';
import { type Operation, OPERATIONS } from '#core/stack/operation.ts';
import { FAMILIES, type Family } from '#core/stack/families/families.ts';
import { CONDITION_KINDS, type ConditionKind } from '#core/stack/material.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** A kept setting of a found sheet at the station asked from. */
export interface FoundAnswer {
  readonly settingId: number;
  readonly operation: Operation;
  readonly state: SettingState;
  readonly bladeKind: string;
  readonly force: number;
}

/** A found material in one of its states. */
export interface FoundState {
  readonly conditionId: number;
  readonly kind: ConditionKind;
  readonly answers: readonly FoundAnswer[];
}

/** A found material with what is kept of it at the station asked from. */
export interface FoundMaterial {
  readonly id: number;
  readonly name: string;
  readonly maker: string;
  readonly family: Family;
  readonly colourHex: string;
  readonly states: readonly FoundState[];
}

const foundRow = z.object({
  id: z.number(),
  name: z.string(),
  maker: z.string(),
  family: z.enum(FAMILIES),
  colour_hex: z.string(),
  condition_id: z.number(),
  kind: z.enum(CONDITION_KINDS),
  setting_id: z.number().nullable(),
  operation: z.enum(OPERATIONS).nullable(),
  state: z.enum(SETTING_STATES).nullable(),
  blade_kind: z.string().nullable(),
  force_value: z.coerce.number().nullable(),
});

/**
 * Found materials with the settings kept of them on one machine, in one query; those put away are left out.
 *
 * @param machineId `null` asks for no settings
 */
export async function findAnswers(
  db: Store,
  materialIds: readonly number[],
  machineId: number | null,
): Promise<readonly FoundMaterial[]> {
  if (materialIds.length === 0) return [];
  const rows = await answerQuery(db, materialIds, machineId);
  const found = new Map<number, FoundMaterial>();
  const states = new Map<number, FoundState[]>();
  const answers = new Map<number, FoundAnswer[]>();
  for (const raw of rows as unknown[]) {
    const row = foundRow.parse(raw);
    const { id, name, maker, family, condition_id: conditionId, kind } = row;
    if (!found.has(id)) states.set(id, []);
    const own = states.get(id) as FoundState[];
    found.set(id, { id, name, maker, family, colourHex: row.colour_hex, states: own });
    if (!answers.has(conditionId)) {
      answers.set(conditionId, []);
      own.push({ conditionId, kind, answers: answers.get(conditionId) as FoundAnswer[] });
    }
    const answer = readAnswer(row);
    if (answer) answers.get(conditionId)?.push(answer);
  }
  return materialIds.flatMap((id) => found.get(id) ?? []);
}

function readAnswer(row: z.infer<typeof foundRow>): FoundAnswer | null {
  const { setting_id: settingId, operation, state, blade_kind, force_value: force } = row;
  if (settingId === null || !operation || !state || force === null) return null;
  return { settingId, operation, state, bladeKind: blade_kind ?? '', force };
}

/** The one query of {@link findAnswers}; tests look at its plan. */
export function answerQuery(db: Store, materialIds: readonly number[], machineId: number | null) {
  return db('materials')
    .join('material_conditions', 'material_conditions.material_id', 'materials.id')
    .leftJoin('settings', (join) =>
      join
        .on('settings.condition_id', 'material_conditions.id')
        .andOnVal('settings.machine_id', machineId ?? 0)
        .andOnNull('settings.archived_at'),
    )
    .leftJoin('setting_revisions', (join) =>
      join
        .on('setting_revisions.setting_id', 'settings.id')
        .andOn('setting_revisions.revision', 'settings.newest_revision'),
    )
    .whereIn('materials.id', [...materialIds])
    .whereNull('materials.archived_at')
    .orderBy(['material_conditions.id', 'settings.id'])
    .select(
      'materials.id',
      'materials.name',
      'materials.maker',
      'materials.family',
      'materials.colour_hex',
      { condition_id: 'material_conditions.id', kind: 'material_conditions.kind' },
      { setting_id: 'settings.id', operation: 'settings.operation', state: 'settings.state' },
      { blade_kind: 'settings.blade_kind' },
      { force_value: db.raw("JSON_VALUE(setting_revisions.setting_values, '$.force')") },
    );
}
