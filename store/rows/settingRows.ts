import { z } from 'zod';
import type { TestCut } from '#core/dialIn/testCut.ts';
import { VALUE_SOURCES, type SettingRevision } from '#core/setting/setting.ts';
import { FLAWS, OPERATIONS, type DepthGrade } from '#core/stack/depthGrade.ts';
import { jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';

const values = z.object({
  force: z.number(),
  exposureMm: z.number(),
  speed: z.number(),
  passes: z.number(),
  offsetMm: z.number(),
  overcutMm: z.number(),
});

const source = z.enum(VALUE_SOURCES);

const revisionRow = z.object({
  revision: z.number(),
  setting_values: jsonColumn(values),
  sources: jsonColumn(
    z.object({
      force: source,
      exposureMm: source,
      speed: source,
      passes: source,
      offsetMm: source,
      overcutMm: source,
    }),
  ),
  author: z.string(),
  reason: z.string(),
  at: timeColumn,
});

const testCutRow = z.object({
  id: z.number(),
  condition_id: z.number(),
  machine_id: z.number(),
  operation: z.enum(OPERATIONS),
  force_value: z.number(),
  force_gf: z.number(),
  speed_mm_per_s: z.number(),
  passes: z.number(),
  exposure_mm: z.number(),
  blade_metres: z.number(),
  grade: z
    .number()
    .int()
    .min(0)
    .max(8)
    .transform((grade) => grade as DepthGrade),
  flaws: jsonColumn(z.array(z.enum(FLAWS))),
  author: z.string(),
  at: timeColumn,
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
    flaws: cut.flaws,
    author: cut.author,
    at: cut.at,
  };
}
