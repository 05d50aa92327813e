import { z } from 'zod';
import { FAMILIES, LAYER_ROLES } from '#core/stack/layer.ts';
import { CONDITION_KINDS } from '#core/stack/material.ts';
import { MACHINE_KINDS } from '#core/station/machine.ts';

const text = (most: number) =>
  z.string().trim().min(1, 'is missing').max(most, `is longer than ${most} characters`);

export const layerSchema = z.object({
  role: z.enum(LAYER_ROLES),
  caliperUm: z
    .number('a caliper is a number')
    .min(1, 'at least 1 µm')
    .max(5000, 'at most 5000 µm')
    .meta({ description: 'µm' }),
  isMeasured: z.boolean(),
});

export const conditionSchema = z.object({
  id: z.number(),
  kind: z.enum(CONDITION_KINDS),
  stack: z.array(layerSchema).readonly(),
});

export const newMaterialSchema = z.object({
  name: text(120),
  maker: text(80),
  family: z.enum(FAMILIES),
  finish: z.string().trim().max(40).default(''),
  colourName: z.string().trim().max(40).default(''),
  colourHex: z.string().regex(/^#[0-9a-f]{6}$/i, 'a colour like #f2c4a0'),
  darkness: z.number().min(0).max(1).meta({ description: 'pigment, 0 pale to 1 black' }),
  stack: z.array(layerSchema).min(1, 'a stack needs at least one layer').max(12),
});
export type NewMaterialInput = z.input<typeof newMaterialSchema>;

export const materialSchema = z.object({
  id: z.number(),
  name: z.string(),
  maker: z.string(),
  family: z.enum(FAMILIES),
  finish: z.string(),
  colourName: z.string(),
  colourHex: z.string(),
  darkness: z.number(),
  cautions: z.array(z.string()).readonly(),
  conditions: z.array(conditionSchema).readonly(),
});

export const forceScaleSchema = z
  .object({
    kind: z.enum(['gramForce', 'level']),
    min: z.number().min(0),
    max: z.number().positive(),
    step: z.number().positive(),
    gfAtZero: z.number().meta({ description: 'nominal gf at value 0' }),
    gfPerUnit: z.number().positive().meta({ description: 'nominal gf per unit' }),
  })
  .refine((scale) => scale.max > scale.min, 'the highest force must be above the lowest')
  .refine(
    (scale) => (scale.max - scale.min) / scale.step <= 2000,
    'more than 2000 steps: choose a coarser step',
  )
  .refine((scale) => scale.gfAtZero + scale.gfPerUnit * scale.min > 0, 'the lowest force must be above 0 gf');

export const speedScaleSchema = z
  .object({
    unit: z.enum(['mm/s', 'cm/s', 'level']),
    min: z.number().positive(),
    max: z.number().positive(),
    step: z.number().positive(),
    mmPerSPerUnit: z.number().positive(),
  })
  .refine((scale) => scale.max > scale.min, 'the highest speed must be above the lowest');

export const depthScaleSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('turns'),
    mmPerTurn: z.number().positive().max(5),
    turnStep: z.number().positive().max(1),
    maxMm: z.number().positive().max(10),
  }),
  z.object({
    kind: z.literal('dial'),
    mmPerStep: z.number().positive().max(2),
    maxMm: z.number().positive().max(10),
  }),
  z.object({
    kind: z.literal('millimetres'),
    stepMm: z.number().positive().max(1),
    maxMm: z.number().positive().max(10),
  }),
]);

export const linkSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('none') }),
  z.object({ kind: z.literal('standIn'), model: z.enum(['desk', 'roll']) }),
  z.object({ kind: z.literal('address'), host: text(200), port: z.number().int().min(1).max(65535) }),
]);

export const newMachineSchema = z.object({
  name: text(80),
  kind: z.enum(MACHINE_KINDS),
  bedWidthMm: z.number().min(50).max(3000),
  bedLengthMm: z.number().min(50).max(20_000),
  marginMm: z.number().min(0).max(50),
  forceScale: forceScaleSchema,
  speedScale: speedScaleSchema,
  depthScale: depthScaleSchema,
  accelerationMmPerS2: z.number().min(50).max(50_000),
  travelSpeedMmPerS: z.number().min(10).max(2000),
  numbersOwner: z.enum(['file', 'panel']),
  hpglUnitsPerMm: z.number().min(10).max(400),
  link: linkSchema,
});

export const machineSchema = newMachineSchema.extend({ id: z.number() });

export const bladeSchema = z.object({
  id: z.number(),
  number: z.number(),
  kind: z.string(),
  angleDeg: z.number(),
  offsetMm: z.number(),
  travelMetres: z.number(),
  lifeMetres: z.number(),
  fittedTo: z.number().nullable(),
});

export const matSchema = z.object({
  id: z.number(),
  number: z.number(),
  tack: z.enum(['light', 'standard', 'strong']),
  uses: z.number(),
  widthMm: z.number(),
  heightMm: z.number(),
});

export const stationSchema = z.object({
  machine: machineSchema,
  blade: bladeSchema.nullable(),
  mat: matSchema.nullable(),
  loaded: z.object({ material: materialSchema, condition: conditionSchema, lot: z.string() }).nullable(),
});

export const stationChangeSchema = z.object({
  bladeId: z.number().int().positive().nullable().optional(),
  matId: z.number().int().positive().nullable().optional(),
  conditionId: z.number().int().positive().nullable().optional(),
  lot: z.string().trim().max(40).optional(),
});
