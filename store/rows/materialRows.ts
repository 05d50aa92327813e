import { z } from 'zod';
import { LAYER_ROLES } from '#core/stack/layer.ts';
import { FAMILIES } from '#core/stack/families/families.ts';
import { CONDITION_KINDS, type Material, type MaterialCondition } from '#core/stack/material.ts';
import { jsonColumn } from '#store/rows/jsonColumn.ts';
import { materialDetailsSchema } from '#store/rows/materialDetailsSchema.ts';

const layer = z.object({ role: z.enum(LAYER_ROLES), caliperUm: z.number(), isMeasured: z.boolean() });

const conditionRow = z.object({
  id: z.number(),
  material_id: z.number(),
  kind: z.enum(CONDITION_KINDS),
  stack: jsonColumn(z.array(layer)),
  coverage: z.number().nullable(),
});

const materialRow = z.object({
  id: z.number(),
  name: z.string(),
  maker: z.string(),
  family: z.enum(FAMILIES),
  finish: z.string(),
  colour_name: z.string(),
  colour_hex: z.string(),
  darkness: z.number(),
  cautions: jsonColumn(z.array(z.string())),
  details: z.preprocess((value) => value ?? '{}', jsonColumn(materialDetailsSchema)),
  version: z.number(),
  archived_at: z.date().nullable(),
});

/** One condition row. */
export function readConditionRow(row: unknown): MaterialCondition & { readonly materialId: number } {
  const { material_id, ...same } = conditionRow.parse(row);
  return { ...same, materialId: material_id };
}

/** One material row; its conditions are given apart. */
export function readMaterialRow(row: unknown, conditions: readonly MaterialCondition[]): Material {
  const { colour_name, colour_hex, archived_at, ...same } = materialRow.parse(row);
  return {
    ...same,
    colourName: colour_name,
    colourHex: colour_hex,
    isArchived: archived_at !== null,
    conditions,
  };
}
