import { z } from 'zod';
import { CONDITION_KINDS } from '#core/stack/material.ts';
import { settingValuesSchema } from '#core/setting/settingFields.ts';
import { materialChangeSchema, newMachineSchema } from '#web/schemas/station.ts';
import { settingOperationSchema } from '#web/schemas/setting.ts';

/** The mark by which a file is known to be a book of ours, and of which version. */
export const BOOK_FORMAT = 'pale-feather-book';
export const BOOK_VERSION = 1;
export const MOST_ROWS = 20_000;

const bookSettingSchema = z.object({
  maker: z.string().trim().min(1, 'is missing'),
  material: z.string().trim().min(1, 'is missing'),
  state: z.enum(CONDITION_KINDS),
  machine: z.string().trim().min(1, 'is missing'),
  blade: z.string().trim().min(1, 'is missing').max(40),
  operation: settingOperationSchema,
  values: settingValuesSchema,
  reason: z.string().max(300).default(''),
  author: z.string().max(60).default(''),
  keptAt: z.string().max(40).default('').meta({ description: 'ISO 8601, UTC' }),
});

/** A book as a JSON file. Everything is told by name; ids never leave a workshop. */
export const bookFileSchema = z
  .object({
    format: z.literal(BOOK_FORMAT),
    version: z.literal(BOOK_VERSION),
    materials: z
      .array(materialChangeSchema.omit({ version: true }))
      .max(MOST_ROWS)
      .default([]),
    machines: z.array(newMachineSchema).max(500).default([]),
    settings: z.array(bookSettingSchema).max(MOST_ROWS).default([]),
  })
  .meta({ title: 'Pale Feather book', description: 'Materials, machines and settings of a workshop.' });
export type BookFileJson = z.infer<typeof bookFileSchema>;

export const importSchema = z.object({
  kind: z.enum(['json', 'csv']),
  text: z.string().min(1, 'the file is empty'),
  isDryRun: z.boolean().default(true),
});

const importedRowSchema = z.object({
  line: z.number(),
  kind: z.enum(['material', 'machine', 'setting']),
  what: z.string(),
  status: z.enum(['new', 'changed', 'same', 'refused']),
  detail: z.string(),
});

export const importReplySchema = z.object({
  isDryRun: z.boolean(),
  rows: z.array(importedRowSchema).readonly(),
});
/** How far reading a file in has come. */
export const importProgressSchema = z.object({
  isReading: z.boolean(),
  done: z.number(),
  of: z.number(),
});
export type ImportProgress = z.infer<typeof importProgressSchema>;

export type ImportReply = z.infer<typeof importReplySchema>;
