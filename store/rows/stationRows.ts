import { z } from 'zod';
import { MACHINE_KINDS, type Machine } from '#core/station/machine.ts';
import type { Blade, Mat } from '#core/station/station.ts';
import { jsonColumn } from '#store/rows/jsonColumn.ts';

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
]);

const link = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('none') }),
  z.object({ kind: z.literal('standIn'), model: z.enum(['desk', 'roll']) }),
  z.object({ kind: z.literal('address'), host: z.string(), port: z.number() }),
]);

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
  hpglUnitsPerMm: z.number(),
  link,
});

const machineRow = z.object({
  id: z.number(),
  name: z.string(),
  kind: z.enum(MACHINE_KINDS),
  facts: jsonColumn(machineFacts),
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
});

const matRow = z.object({
  id: z.number(),
  number: z.number(),
  tack: z.enum(['light', 'standard', 'strong']),
  uses: z.number(),
  width_mm: z.number(),
  height_mm: z.number(),
});

export function readMachineRow(row: unknown): Machine {
  const { facts, ...same } = machineRow.parse(row);
  return { ...same, ...facts };
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
  };
}

export function readMatRow(row: unknown): Mat {
  const { width_mm, height_mm, ...same } = matRow.parse(row);
  return { ...same, widthMm: width_mm, heightMm: height_mm };
}
