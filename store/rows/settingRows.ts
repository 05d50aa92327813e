import { z } from 'zod';
import type { TestCut } from '#core/dialIn/testCut.ts';
import { SETTING_STATES, VALUE_SOURCES, type SettingRevision } from '#core/setting/setting.ts';
import { DEPTH_OPERATIONS, OPERATIONS } from '#core/stack/operation.ts';
import { FIELDS, settingValuesSchema } from '#core/setting/settingFields.ts';
import { FLAWS, type DepthGrade } from '#core/stack/depthGrade.ts';
import { jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';

/** Where each value came from. */
export const settingSourcesSchema = z.partialRecord(z.enum(FIELDS), z.enum(VALUE_SOURCES));

const revisionRow = z.object({
  revision: z.number(),
  setting_values: jsonColumn(settingValuesSchema),
  sources: jsonColumn(settingSourcesSchema),
  author: z.string(),
  reason: z.string(),
  lot: z.string(),
  at: timeColumn,
});

const settingRow = z.object({
  id: z.number(),
  condition_id: z.number(),
  machine_id: z.number(),
  blade_kind: z.string(),
  operation: z.enum(OPERATIONS),
  newest_revision: z.number(),
  state: z.enum(SETTING_STATES),
  state_reason: z.string(),
  locked_by: z.string(),
  archived_at: z.date().nullable(),
});

const gradeColumn = z
  .number()
  .int()
  .min(0)
  .max(8)
  .transform((grade) => grade as DepthGrade);

const testCutRow = z.object({
  id: z.number(),
  condition_id: z.number(),
  machine_id: z.number(),
  operation: z.enum(DEPTH_OPERATIONS),
  force_value: z.number(),
  force_gf: z.number(),
  speed_mm_per_s: z.number(),
  passes: z.number(),
  exposure_mm: z.number(),
  blade_metres: z.number(),
  grade: gradeColumn,
  grade_to: gradeColumn.nullable(),
  flaws: jsonColumn(z.array(z.enum(FLAWS))),
  author: z.string(),
  lot: z.string(),
  colour: z.string(),
  at: timeColumn,
  blade_id: z.number().nullable(),
  /** Of its blade; left out where cuts are read without. */
  kind: z.string().nullish(),
  dial_in_id: z.number().nullable(),
  load_number: z.number().nullable(),
  cell: z.number().nullable(),
});

export function readRevisionRow(row: unknown): SettingRevision {
  const { setting_values, ...same } = revisionRow.parse(row);
  return { ...same, values: setting_values };
}

export function readTestCutRow(row: unknown): TestCut {
  const cut = testCutRow.parse(row);
  return {
    id: cut.id,
    conditionId: cut.condition_id,
    machineId: cut.machine_id,
    operation: cut.operation,
    force: cut.force_value,
    forceGf: cut.force_gf,
    speedMmPerS: cut.speed_mm_per_s,
    passes: cut.passes,
    exposureMm: cut.exposure_mm,
    bladeMetres: cut.blade_metres,
    grade: cut.grade,
    upTo: cut.grade_to,
    flaws: cut.flaws,
    author: cut.author,
    lot: cut.lot,
    colour: cut.colour,
    at: cut.at,
    bladeId: cut.blade_id,
    ...(cut.kind == null ? {} : { bladeKind: cut.kind }),
    dialInId: cut.dial_in_id,
    load: cut.load_number,
    cell: cut.cell,
  };
}

/** A setting's own row, without its revisions. */
export function readSettingRow(row: unknown) {
  const setting = settingRow.parse(row);
  return {
    id: setting.id,
    key: {
      conditionId: setting.condition_id,
      machineId: setting.machine_id,
      bladeKind: setting.blade_kind,
      operation: setting.operation,
    },
    newestRevision: setting.newest_revision,
    state: setting.state,
    stateReason: setting.state_reason,
    lockedBy: setting.locked_by,
    isArchived: setting.archived_at !== null,
  };
}
