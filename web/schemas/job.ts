import { z } from 'zod';
import { DRAWING_FORMATS, MAX_DRAWING_LENGTH } from '#core/drawing/drawing.ts';
import {
  sheetSchema,
  hexColour,
  roleSchema,
  rolesSchema,
  lineRolesSchema,
  editSchema,
  layoutSchema,
  printSchema,
  passChoicesSchema,
  borderSchema,
} from '#web/schemas/jobDesign.ts';

const nameSchema = z.string().trim().min(1, 'is missing').max(120);

/** A file that becomes a drawing of a job. */
export const newDrawingSchema = z.object({
  name: nameSchema,
  format: z.enum(DRAWING_FORMATS).default('svg'),
  source: z
    .string()
    .min(1, 'the file is empty')
    .max(MAX_DRAWING_LENGTH, `the drawing is larger than ${MAX_DRAWING_LENGTH / 1e6} MB`),
});
export type NewDrawing = z.infer<typeof newDrawingSchema>;
/** Drawings of one job. */
const MOST_DRAWINGS = 200;

export const newJobSchema = newDrawingSchema.extend({
  title: nameSchema
    .optional()
    .meta({ description: 'what the job is called, where not as its first drawing' }),
  machineId: z.number().int().positive(),
  border: borderSchema.optional(),
  copies: z.number().int().min(0).max(10_000).default(1),
  moreDrawings: z
    .array(newDrawingSchema)
    .max(MOST_DRAWINGS)
    .default([])
    .meta({ description: 'further drawings of the same job' }),
});

/** A picture as a job keeps it. */
export const openedPictureSchema = z.object({
  image: z.string().meta({
    description: 'data:image/png;base64,… or the same with jpeg; where it is fetched, for one that is kept',
  }),
  address: z.string().optional().meta({ description: 'by which drawings name it, for one that is kept' }),
  widthPx: z.number(),
  heightPx: z.number(),
  dpi: z.number().nullable().meta({ description: 'what its file says of its size on paper' }),
  hasClear: z.boolean().meta({ description: 'whether something of it is clear' }),
  reducedFrom: z.number().nullable().meta({ description: 'pixels of its file, where fewer are kept' }),
});
export type OpenedPictureReply = z.infer<typeof openedPictureSchema>;

export const jobChangeSchema = z.object({
  version: z.number().int().positive(),
  name: z.string().trim().min(1).max(120).optional(),
  drawingName: nameSchema.optional().meta({ description: 'what the first drawing is called' }),
  roles: rolesSchema.optional(),
  lineRoles: lineRolesSchema.optional(),
  edits: z.array(editSchema).max(500).readonly().optional(),
  sheet: sheetSchema.optional(),
  layout: layoutSchema.optional(),
  print: printSchema.optional(),
  passes: passChoicesSchema.optional(),
  conditionId: z.number().int().positive().optional().meta({ description: 'another material' }),
  machineId: z.number().int().positive().optional().meta({ description: 'another machine' }),
  moreDrawings: z
    .array(
      z.object({
        number: z.number().int().positive(),
        name: nameSchema.optional(),
        roles: rolesSchema.optional(),
        lineRoles: lineRolesSchema.optional(),
        edits: z.array(editSchema).max(500).readonly().optional(),
      }),
    )
    .max(MOST_DRAWINGS)
    .optional()
    .meta({ description: 'changes of further drawings' }),
  isPutAway: z.boolean().optional().meta({ description: 'out of the list, with everything kept' }),
  arrange: z
    .boolean()
    .default(false)
    .meta({ description: 'lay the pieces out anew with this change, as the layout says' }),
});

const drawingFields = {
  name: z.string(),
  format: z.enum(DRAWING_FORMATS),
  roles: rolesSchema.readonly(),
  lineRoles: lineRolesSchema.readonly(),
  areRolesGuessed: z.boolean(),
  edits: z.array(editSchema).readonly(),
};
const furtherDrawing = z.object({ number: z.number().int().positive(), ...drawingFields });

const designFields = {
  ...drawingFields,
  drawingName: z.string().optional(),
  sheet: sheetSchema,
  layout: layoutSchema,
  print: printSchema,
  passes: passChoicesSchema,
};

export const jobSchema = z.object({
  id: z.number(),
  ...designFields,
  moreDrawings: z
    .array(furtherDrawing)
    .readonly()
    .optional()
    .meta({ description: 'further drawings; their files are under /source' }),
  conditionId: z.number(),
  machineId: z.number(),
  version: z.number(),
  updatedAt: z.string(),
});
export type JobReply = z.infer<typeof jobSchema>;

/** A whole job as a file: told by names, so that another workshop can open it. */
export const jobFileSchema = z.object({
  kind: z.literal('paleFeatherJob'),
  version: z.literal(1),
  ...designFields,
  source: newJobSchema.shape.source,
  moreDrawings: z
    .array(furtherDrawing.extend({ source: newDrawingSchema.shape.source }))
    .max(MOST_DRAWINGS)
    .readonly()
    .optional(),
  machine: z.string(),
  material: z.string(),
  state: z.string(),
});
export type JobFile = z.infer<typeof jobFileSchema>;

export const roleRuleSchema = z
  .object({
    layer: z.string().trim().min(1).max(80).nullable(),
    colour: hexColour.nullable(),
    isDashed: z.boolean().nullable(),
    role: roleSchema,
  })
  .refine(({ layer, colour, isDashed }) => (layer ?? colour ?? isDashed) !== null, 'a rule asks something');

export const jobSummarySchema = z.object({
  id: z.number(),
  name: z.string(),
  material: z.string(),
  machine: z.string(),
  version: z.number(),
  isPutAway: z.boolean(),
  updatedAt: z.string(),
});
export type JobSummaryReply = z.infer<typeof jobSummarySchema>;
