import { z } from 'zod';
import { readLanguage } from '#core/protocol/findLanguage.ts';
import { OPERATIONS } from '#core/stack/operation.ts';
import {
  HANDSHAKES,
  MACHINE_KINDS,
  MARK_SCHEMES,
  MARK_SHAPES,
  PLAIN_EQUIPMENT,
  SEAT_GROUNDS,
  SEAT_USES,
  STAND_IN_MODELS,
  type Machine,
} from '#core/station/machine.ts';
import type { Blade, Mat } from '#core/station/station.ts';
import { TACK_CLASSES } from '#core/wear/tackIndex.ts';
import { flagColumn, jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';

const forceScale = z.object({
  kind: z.enum(['gramForce', 'level']),
  min: z.number(),
  max: z.number(),
  step: z.number(),
  gfAtZero: z.number(),
  gfPerUnit: z.number(),
});

const speedScale = z.object({
  unit: z.enum(['mm/s', 'cm/s', 'level']),
  min: z.number(),
  max: z.number(),
  step: z.number(),
  mmPerSPerUnit: z.number(),
});

const depthScale = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('turns'), mmPerTurn: z.number(), turnStep: z.number(), maxMm: z.number() }),
  z.object({ kind: z.literal('dial'), mmPerStep: z.number(), maxMm: z.number() }),
  z.object({ kind: z.literal('millimetres'), stepMm: z.number(), maxMm: z.number() }),
  z.object({ kind: z.literal('automatic'), stepMm: z.number(), maxMm: z.number() }),
  z.object({ kind: z.literal('fixed'), maxMm: z.number() }),
]);

const link = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('none') }),
  z.object({ kind: z.literal('standIn'), model: z.enum(STAND_IN_MODELS) }),
  z.object({ kind: z.literal('address'), host: z.string(), port: z.number() }),
  z.object({
    kind: z.literal('serial'),
    path: z.string(),
    baudRate: z.number(),
    handshake: z.enum(HANDSHAKES),
  }),
  z.object({ kind: z.literal('device'), path: z.string() }),
]);

/** What a machine can do and carries; read from its column and from requests alike. */
export const equipmentShape = {
  operations: z
    .array(z.enum(OPERATIONS))
    .min(1, 'at least one')
    .readonly()
    .default(PLAIN_EQUIPMENT.operations),
  toolSeats: z
    .array(
      z.object({
        name: z.string().trim().min(1, 'is missing').max(40),
        holds: z.enum(SEAT_USES),
        tool: z.string().trim().max(60),
        over: z.enum(SEAT_GROUNDS).optional(),
        does: z.array(z.enum(OPERATIONS)).min(1, 'at least one').readonly().optional(),
      }),
    )
    .min(1, 'at least one seat')
    .max(6)
    .readonly()
    .default(PLAIN_EQUIPMENT.toolSeats),
  perforation: z.enum(['native', 'drawn']).default(PLAIN_EQUIPMENT.perforation),
  marks: z
    .object({
      scheme: z.enum(MARK_SCHEMES),
      lengthMm: z.number('a number of mm').min(2).max(60),
      thicknessMm: z.number('a number of mm').min(0.1).max(5),
      insetMm: z.number('a number of mm').min(0).max(60),
      shape: z.enum(MARK_SHAPES).optional(),
      alongSide: z
        .number('a number')
        .int('a whole number')
        .min(2, 'at least the two corners')
        .max(12)
        .optional(),
      clearMm: z.number('a number of mm').min(0).max(60).optional(),
    })
    .default(PLAIN_EQUIPMENT.marks),
  printAndCut: z
    .array(
      z.object({
        sheet: z.string().trim().min(1, 'is missing').max(40),
        widthMm: z.number('a number of mm').positive('above 0').max(3000),
        heightMm: z.number('a number of mm').positive('above 0').max(20_000),
      }),
    )
    .max(20)
    .readonly()
    .default([]),
  pinchPositions: z.array(z.string().trim().min(1).max(30)).max(10).readonly().default([]),
  hasSuction: z.boolean().default(false),
  hasPrinter: z.boolean().default(false),
  loadTo: z.string().trim().max(120).optional(),
  panelCuts: z
    .number('a number')
    .int('a whole number')
    .min(1, 'at least one')
    .max(20, 'at most 20')
    .optional(),
};

/** The JSON column that holds what a machine is. */
export const machineFacts = z.object({
  bedWidthMm: z.number(),
  bedLengthMm: z.number(),
  marginMm: z.number(),
  forceScale,
  speedScale,
  depthScale,
  accelerationMmPerS2: z.number(),
  travelSpeedMmPerS: z.number(),
  numbersOwner: z.enum(['file', 'panel']),
  language: z.object({ id: z.string(), options: z.record(z.string(), z.unknown()) }).optional(),
  hpglUnitsPerMm: z.number().optional(),
  link,
  ...equipmentShape,
});

/** What readings of a balance make of a force scale. */
export const fittedScaleSchema = z.object({
  points: z
    .array(z.object({ force: z.number(), gf: z.number(), lowGf: z.number(), highGf: z.number() }))
    .readonly(),
  noiseG: z.number(),
});

const machineRow = z.object({
  id: z.number(),
  name: z.string(),
  kind: z.enum(MACHINE_KINDS),
  facts: jsonColumn(machineFacts),
  version: z.number(),
  archived_at: z.date().nullable(),
  /** Of the newest calibration; left out or `null` where the scale is the maker's. */
  scale_fitted: jsonColumn(fittedScaleSchema).nullish(),
});

const bladeRow = z.object({
  id: z.number(),
  number: z.number(),
  kind: z.string(),
  angle_deg: z.number(),
  offset_mm: z.number(),
  travel_metres: z.number(),
  life_metres: z.number(),
  fitted_to: z.number().nullish(),
  reach_mm: z.number().nullable(),
  holder: z.string(),
  dial_mm_per_step: z.number().nullish(),
  is_hard_metal: flagColumn,
  cleaned_at: timeColumn.nullable(),
  retired_at: timeColumn.nullable(),
});

const matRow = z.object({
  id: z.number(),
  number: z.number(),
  tack: z.enum(TACK_CLASSES),
  uses: z.number(),
  width_mm: z.number(),
  height_mm: z.number(),
  uses_at_restick: z.number(),
  uses_at_cleaning: z.number(),
  first_used_at: timeColumn.nullable(),
  has_grooves: flagColumn,
  is_for_fine_work: flagColumn,
  retired_at: timeColumn.nullable(),
  felt_share: z.number().nullable().optional(),
});

export function readMachineRow(row: unknown): Machine {
  const { facts, archived_at, scale_fitted, ...same } = machineRow.parse(row);
  const measured = scale_fitted?.points.map(({ force, gf }) => ({ force, gf }));
  const forceScale = measured ? { ...facts.forceScale, measured } : facts.forceScale;
  const language = readLanguage(facts.language, facts.hpglUnitsPerMm);
  const { unitsPerMm } = language.options;
  const hpglUnitsPerMm = typeof unitsPerMm === 'number' ? unitsPerMm : undefined;
  return { ...same, ...facts, forceScale, language, hpglUnitsPerMm, isArchived: archived_at !== null };
}

export function readBladeRow(row: unknown): Blade {
  const blade = bladeRow.parse(row);
  return {
    id: blade.id,
    number: blade.number,
    kind: blade.kind,
    angleDeg: blade.angle_deg,
    offsetMm: blade.offset_mm,
    travelMetres: blade.travel_metres,
    lifeMetres: blade.life_metres,
    fittedTo: blade.fitted_to ?? null,
    reachMm: blade.reach_mm,
    holder: blade.holder,
    dialMmPerStep: blade.dial_mm_per_step ?? null,
    isHardMetal: blade.is_hard_metal,
    cleanedAt: blade.cleaned_at,
    retiredAt: blade.retired_at,
  };
}

export function readMatRow(row: unknown): Mat {
  const mat = matRow.parse(row);
  return {
    id: mat.id,
    number: mat.number,
    tack: mat.tack,
    uses: mat.uses,
    widthMm: mat.width_mm,
    heightMm: mat.height_mm,
    usesAtRestick: mat.uses_at_restick,
    usesAtCleaning: mat.uses_at_cleaning,
    firstUsedAt: mat.first_used_at,
    hasGrooves: mat.has_grooves,
    isForFineWork: mat.is_for_fine_work,
    retiredAt: mat.retired_at,
    feltShare: mat.felt_share ?? null,
  };
}
