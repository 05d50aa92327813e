import { z } from 'zod';
import { SETTING_STATES } from '#core/setting/setting.ts';
import { settingValuesSchema } from '#core/setting/settingFields.ts';
import { CONDITION_KINDS } from '#core/stack/material.ts';
import { MACHINE_KINDS } from '#core/station/machine.ts';
import { settingOperationSchema } from '#web/schemas/setting.ts';
import { materialChangeSchema } from '#web/schemas/station.ts';

export const SHEET_FORMAT = 'pale-feather-sheet';
const name = z.string().trim().min(1).max(120);

/** A sheet with its settings, as it travels in a code or a file. */
export const travellingSheetSchema = z.object({
  format: z.literal(SHEET_FORMAT),
  version: z.literal(1),
  material: materialChangeSchema.omit({ version: true }),
  machines: z
    .array(
      z.object({
        name,
        kind: z.enum(MACHINE_KINDS),
        scale: z.object({
          kind: z.enum(['gramForce', 'level']),
          min: z.number(),
          max: z.number(),
          step: z.number(),
        }),
        isGuessed: z.boolean(),
      }),
    )
    .max(50)
    .readonly(),
  settings: z
    .array(
      z.object({
        state: z.enum(CONDITION_KINDS),
        machine: z.number().int().min(0),
        blade: z.string().trim().min(1).max(40),
        operation: settingOperationSchema,
        values: settingValuesSchema,
        gf: z.number().min(0).max(100_000),
        tabGf: z.number().min(0).max(100_000).optional(),
        mmPerS: z.number().positive().max(10_000),
        trust: z.enum(SETTING_STATES),
        reason: z.string().max(80),
      }),
    )
    .max(500)
    .readonly(),
});
export type TravellingSheetJson = z.infer<typeof travellingSheetSchema>;

/** A sheet as one code: what stands in it, and what had no room. */
export const sheetCodeSchema = z.object({
  code: z.string().meta({ description: 'letters of a QR code in alphanumeric mode' }),
  settings: z.number(),
  leftOut: z.number().meta({ description: 'settings that had no room; a file has room for all' }),
});
export type SheetCodeReply = z.infer<typeof sheetCodeSchema>;

const MOST_LETTERS = 400_000;
const codeText = z.string().min(1, 'nothing was read').max(MOST_LETTERS);
export const readCodeSchema = z.object({
  text: codeText.meta({ description: 'what a code says, or a file of one sheet' }),
});

/** What a code leads to: a page of this workshop, or a sheet that can be taken in. */
export const readCodeReplySchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('page'), path: z.string() }),
  z.object({
    kind: z.literal('sheet'),
    name: z.string(),
    maker: z.string(),
    isHere: z.boolean().meta({ description: 'whether a sheet of this name is kept here' }),
    putAwayId: z.number().nullable().meta({ description: 'that sheet, where it was put away' }),
    settings: z.number(),
    machines: z
      .array(
        z.object({
          name: z.string(),
          kind: z.enum(MACHINE_KINDS),
          settings: z.number(),
          likeliestId: z.number().nullable().meta({ description: 'a machine here that is most like it' }),
        }),
      )
      .readonly(),
  }),
]);
export type ReadCodeReply = z.infer<typeof readCodeReplySchema>;
export type ReadSheet = Extract<ReadCodeReply, { kind: 'sheet' }>;

export const takeCodeSchema = z.object({
  text: codeText,
  onto: z.array(z.number().int().positive().nullable()).max(50).meta({
    description: 'for each machine of the code the one here that it stands for; null leaves its settings out',
  }),
  isDryRun: z.boolean().default(true),
});
