import { z } from 'zod';
import { LAYER_ROLES } from '#core/stack/layer.ts';
import { FAMILIES } from '#core/stack/families/families.ts';
import { CONDITION_KINDS } from '#core/stack/material.ts';
import { readLanguage } from '#core/protocol/findLanguage.ts';
import { LANGUAGES } from '#core/protocol/languages.ts';
import { HANDSHAKES, MACHINE_KINDS, STAND_IN_MODELS } from '#core/station/machine.ts';
import { TACK_CLASSES } from '#core/wear/tackIndex.ts';
import { materialDetailsSchema } from '#store/rows/materialDetailsSchema.ts';
import { equipmentShape } from '#store/rows/stationRows.ts';

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
  coverage: z.number().nullable().optional(),
});

/** What the pack says; a material is added by it and one stack, or changed with all its states. */
const packShape = {
  name: text(120),
  maker: text(80),
  family: z.enum(FAMILIES),
  finish: z.string().trim().max(40).default(''),
  colourName: z.string().trim().max(40).default(''),
  colourHex: z.string().regex(/^#[0-9a-f]{6}$/i, 'a colour like #f2c4a0'),
  darkness: z.number().min(0).max(1).meta({ description: 'pigment, 0 pale to 1 black' }),
};

const newStackSchema = z.array(layerSchema).min(1, 'a stack needs at least one layer').max(12);

export const newMaterialSchema = z.object({ ...packShape, stack: newStackSchema });
export type NewMaterialInput = z.input<typeof newMaterialSchema>;

export const materialChangeSchema = z.object({
  ...packShape,
  cautions: z.array(text(200)).max(20).readonly(),
  details: materialDetailsSchema,
  conditions: z
    .array(
      z.object({
        id: z.number().int().positive().optional(),
        kind: z.enum(CONDITION_KINDS),
        stack: newStackSchema,
        coverage: z.number().min(0, 'at least 0').max(1, 'at most 1').nullable().default(null),
      }),
    )
    .min(1, 'a material has at least one state')
    .refine(
      (all) => new Set(all.map(({ kind }) => kind)).size === all.length,
      'two states are of the same kind',
    ),
  version: z.number().int().meta({ description: 'the version its author saw' }),
});
export type MaterialChangeInput = z.input<typeof materialChangeSchema>;

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
  details: materialDetailsSchema,
  conditions: z.array(conditionSchema).readonly(),
  version: z.number(),
  isArchived: z.boolean(),
});

export const forceScaleSchema = z
  .object({
    kind: z.enum(['gramForce', 'level']),
    min: z.number().min(0),
    max: z.number().positive(),
    step: z.number().positive(),
    gfAtZero: z.number().meta({ description: 'nominal gf at value 0' }),
    gfPerUnit: z.number().positive().meta({ description: 'nominal gf per unit' }),
    measured: z
      .array(z.object({ force: z.number(), gf: z.number() }))
      .readonly()
      .optional()
      .meta({ description: 'from the newest calibration; what is sent is not used' }),
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
  z.object({
    kind: z.literal('automatic'),
    stepMm: z.number().positive().max(1),
    maxMm: z.number().positive().max(10),
  }),
  z.object({ kind: z.literal('fixed'), maxMm: z.number().positive().max(10) }),
]);

/** Printer devices and serial lines by the names that Linux gives them; never a disk or memory. */
const DEVICE_PATH =
  /^\/dev\/(usb\/lp\d+|usblp\d+|lp\d+|tty[\w]+|pts\/\d+|rfcomm\d+|serial\/by-(id|path)\/[\w.:+-]+)$/;
const devicePath = text(120).regex(
  DEVICE_PATH,
  'a printer device or a serial line of this computer, such as /dev/usb/lp0 or /dev/ttyUSB0',
);

export const linkSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('none') }),
  z.object({ kind: z.literal('standIn'), model: z.enum(STAND_IN_MODELS) }),
  z.object({ kind: z.literal('address'), host: text(200), port: z.number().int().min(1).max(65535) }),
  z.object({
    kind: z.literal('serial'),
    path: devicePath,
    baudRate: z.number('a number of baud').int().min(300).max(2_000_000),
    handshake: z.enum(HANDSHAKES),
  }),
  z.object({ kind: z.literal('device'), path: devicePath }),
]);

/** A language that is known, with options that it takes. */
const languageSchema = z
  .object({ id: z.string().max(40), options: z.record(z.string(), z.unknown()).default({}) })
  .superRefine(({ id, options }, context) => {
    const found = LANGUAGES.find((language) => language.id === id);
    if (!found) {
      context.addIssue({ code: 'custom', message: 'no such machine language', path: ['id'] });
      return;
    }
    for (const { message, path } of found.options.safeParse(options).error?.issues ?? []) {
      context.addIssue({ code: 'custom', message, path: ['options', ...path] });
    }
  });

const machineShape = {
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
  language: languageSchema.meta({ description: 'left out: that of most cutters' }),
  hpglUnitsPerMm: z
    .number()
    .min(10)
    .max(400)
    .optional()
    .meta({ description: 'steps in a mm, where no language is named' }),
  link: linkSchema,
  ...equipmentShape,
};

/** A machine with its language named, as the form has it. */
export const machineFormSchema = z.object(machineShape);
export type MachineInput = z.input<typeof machineFormSchema>;

/** A machine whose language was not named speaks that of most cutters. */
function nameLanguage(given: unknown): unknown {
  if (typeof given !== 'object' || given === null || 'language' in given) return given;
  const steps = 'hpglUnitsPerMm' in given ? given.hpglUnitsPerMm : undefined;
  return { ...given, language: readLanguage(undefined, typeof steps === 'number' ? steps : undefined) };
}

export const newMachineSchema = z.preprocess(nameLanguage, machineFormSchema);

export const machineChangeSchema = z.preprocess(
  nameLanguage,
  machineFormSchema.extend({
    version: z.number().int().meta({ description: 'the version its author saw' }),
  }),
);

export const machineSchema = machineFormSchema.extend({
  language: z.object({ id: z.string(), options: z.record(z.string(), z.unknown()).readonly() }),
  id: z.number(),
  version: z.number(),
  isArchived: z.boolean(),
});

const bladeShape = {
  kind: text(40),
  angleDeg: z.number('a number of degrees').min(10, 'at least 10°').max(90, 'at most 90°'),
  offsetMm: z.number('a number of mm').min(0).max(3),
  lifeMetres: z.number('a number of metres').min(1).max(100_000),
  reachMm: z.number('a number of mm').min(0.05).max(20).nullable(),
  holder: z.string().trim().max(60),
  dialMmPerStep: z
    .number('a number of mm')
    .min(0.01)
    .max(2)
    .nullable()
    .optional()
    .meta({ description: "how far one step of the holder's own dial moves the tip" }),
  isHardMetal: z.boolean(),
};

export const newBladeSchema = z.object({
  number: z.number('a number').int('a whole number').min(1).max(99_999),
  ...bladeShape,
  reachMm: bladeShape.reachMm.default(null),
  holder: bladeShape.holder.default(''),
  isHardMetal: bladeShape.isHardMetal.default(false),
  travelMetres: z.number('a number of metres').min(0).max(100_000).default(0),
});
export const bladeChangeSchema = z.object(bladeShape).partial();

export const bladeSchema = z.object({
  ...bladeShape,
  id: z.number(),
  number: z.number(),
  travelMetres: z.number(),
  fittedTo: z.number().nullable(),
  cleanedAt: z.string().nullable(),
  retiredAt: z.string().nullable(),
});

const matShape = {
  tack: z.enum(TACK_CLASSES),
  widthMm: z.number('a number of mm').min(50).max(3000),
  heightMm: z.number('a number of mm').min(50).max(3000),
  hasGrooves: z.boolean(),
  isForFineWork: z.boolean(),
};

export const newMatSchema = z.object({
  number: z.number('a number').int('a whole number').min(1).max(99_999),
  ...matShape,
  hasGrooves: matShape.hasGrooves.default(false),
  isForFineWork: matShape.isForFineWork.default(false),
  uses: z.number('a number of loads').int().min(0).max(100_000).default(0),
});
export const matChangeSchema = z.object(matShape).partial();

export const matSchema = z.object({
  ...matShape,
  id: z.number(),
  number: z.number(),
  uses: z.number(),
  usesAtRestick: z.number(),
  usesAtCleaning: z.number(),
  firstUsedAt: z.string().nullable(),
  retiredAt: z.string().nullable(),
  feltShare: z
    .number()
    .nullish()
    .meta({ description: 'how its tack felt under a hand, over what was reckoned then' }),
});

export const stationSchema = z.object({
  machine: machineSchema,
  blade: bladeSchema.nullable(),
  mat: matSchema.nullable(),
  loaded: z
    .object({ material: materialSchema, condition: conditionSchema, lot: z.string(), colour: z.string() })
    .nullable(),
});

export const stationChangeSchema = z.object({
  bladeId: z.number().int().positive().nullable().optional(),
  matId: z.number().int().positive().nullable().optional(),
  conditionId: z.number().int().positive().nullable().optional(),
  lot: z.string().trim().max(40).optional(),
  colour: z.string().trim().max(40).optional(),
  lotNamed: z.string().max(40).optional().meta({ description: 'a word of a lot code, as it was searched' }),
});

/** Readings of a kitchen balance under the tip, each at a value of the force scale. */
export const readingsSchema = z
  .array(z.object({ force: z.number('a value of the scale'), grams: z.number('grams') }))
  .min(1, 'no readings')
  .max(60);
