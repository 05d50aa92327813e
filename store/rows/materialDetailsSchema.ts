import { z } from 'zod';
import { FIBRE_DIRECTIONS, NO_DETAILS, PRINT_METHODS, PRINT_SIDES } from '#core/stack/materialDetails.ts';

const short = (most: number) => z.string().trim().max(most, `is longer than ${most} characters`);
const named = (most: number) => short(most).min(1, 'is missing');
const percent = z.number('a number of percent').min(-50, 'at least -50 %').max(100, 'at most 100 %');

export const lotSchema = z.object({
  code: named(40),
  receivedOn: z.union([z.iso.date('a date like 2026-03-04'), z.literal('')]).default(''),
  storage: short(120).default(''),
  humidityPercent: z.number().min(0).max(100).nullable().default(null),
  forcePercent: percent.default(0),
  note: short(300).default(''),
  isArchived: z.boolean().default(false),
});

export const colourSchema = z.object({
  name: named(40),
  hex: z.string().regex(/^#[0-9a-f]{6}$/i, 'a colour like #f2c4a0'),
  darkness: z.number().min(0).max(1).meta({ description: 'pigment, 0 pale to 1 black' }),
  forcePercent: percent.default(0).meta({ description: 'more force than the settings of the material, %' }),
});

const remnantSchema = z.object({
  widthMm: z.number('a number of mm').positive('above 0').max(5000),
  heightMm: z.number('a number of mm').positive('above 0').max(50_000),
  note: short(120).default(''),
  takenMm: z.number().positive().max(50_000).optional(),
});

const stockSchema = z.object({
  unit: z.enum(['sheet', 'metre']),
  price: z.number('a price').min(0).max(1e6).nullable(),
  currency: z.string().regex(/^[A-Z]{3}$/, 'three letters, like EUR'),
  onHand: z.number('a number').min(0).max(1e6).nullable(),
});

const heatSchema = z.object({
  temperatureC: z.number('a number of °C').min(20).max(300),
  seconds: z.number('a number of seconds').min(1).max(600),
  note: short(120).default(''),
});

/** Everything about a material beside its name, colour and layers; read from its column and from requests alike. */
export const materialDetailsSchema = z.object({
  product: short(80).default(NO_DETAILS.product),
  nicknames: z.array(named(60)).max(20).readonly().default([]),
  printMethods: z.array(z.enum(PRINT_METHODS)).readonly().default([]),
  printSide: z.enum(PRINT_SIDES).default(NO_DETAILS.printSide),
  isMirrored: z.boolean().default(false),
  heat: heatSchema.nullable().default(null),
  adhesive: short(60).default(''),
  fibre: z.enum(FIBRE_DIRECTIONS).default(NO_DETAILS.fibre),
  lots: z
    .array(lotSchema)
    .max(200)
    .refine(
      (lots) => new Set(lots.map(({ code }) => code)).size === lots.length,
      'two lots have the same code',
    )
    .readonly()
    .default([]),
  colours: z
    .array(colourSchema)
    .max(200)
    .refine(
      (all) => new Set(all.map(({ name }) => name)).size === all.length,
      'two colours have the same name',
    )
    .readonly()
    .default([]),
  stock: stockSchema.default(NO_DETAILS.stock),
  remnants: z.array(remnantSchema).max(200).readonly().default([]),
  neverFor: z.array(named(200)).max(20).readonly().default([]),
  note: short(2000).default(''),
});
