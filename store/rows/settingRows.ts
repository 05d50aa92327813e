import { z } from 'zod';
import type { TestCut } from '#core/dialIn/testCut.ts';
import {
  SETTING_OPERATIONS,
  SETTING_STATES,
  STRATEGIES,
  VALUE_SOURCES,
  type SettingField,
  type SettingRevision,
} from '#core/setting/setting.ts';
import { SETTING_FIELDS } from '#core/setting/settingFields.ts';
import { DIAL_IN_OPERATIONS, FLAWS, type DepthGrade } from '#core/stack/depthGrade.ts';
import { jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';

/** The values of a setting; read from their column and from requests alike. */
export const settingValuesSchema = z.object({
  force: z.number('a force').meta({ description: "on the machine's own scale" }),
  exposureMm: z.number('a number of mm').min(0),
  speed: z.number('a speed').positive('above 0').meta({ description: "on the machine's own scale" }),
  passes: z.number('a number of passes').int('a whole number').min(1, 'at least 1').max(12, 'at most 12'),
  offsetMm: z.number('a number of mm').min(0).max(3),
  overcutMm: z.number('a number of mm').min(0).max(10),
  strategy: z.enum(STRATEGIES).optional(),
  tabForce: z.number().optional().meta({ description: 'always the kiss force; what is given is not used' }),
  cutLengthMm: z.number('a number of mm').optional(),
  tabLengthMm: z.number('a number of mm').optional(),
  cornerClearanceMm: z.number('a number of mm').optional(),
  depthShare: z.number('a share').optional(),
  tool: z.string().trim().max(60).optional(),
});

/** Where each value came from. */
export const settingSourcesSchema = z.partialRecord(
  z.enum(Object.keys(SETTING_FIELDS) as [SettingField, ...SettingField[]]),
  z.enum(VALUE_SOURCES),
);

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
  operation: z.enum(SETTING_OPERATIONS),
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
  operation: z.enum(DIAL_IN_OPERATIONS),
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
