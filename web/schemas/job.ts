import { z } from 'zod';
import { DRAWING_FORMATS, MAX_CONTOURS, MAX_DRAWING_LENGTH } from '#core/drawing/drawing.ts';
import { CUT_ROLES, ROLES } from '#core/drawing/roles/lineRoles.ts';
import { FREEING_WAYS } from '#core/passes/compareFreeing.ts';
import { STRATEGIES } from '#core/setting/settingFields.ts';
import { WAYS_OUT } from '#core/job/composeChecklist.ts';
import { ROUTE_STEPS } from '#core/passes/routeSteps.ts';
import { RISK_KINDS } from '#core/passes/estimateRisks.ts';
import { OPERATIONS } from '#core/stack/operation.ts';
import { BACKINGS } from '#core/drawing/border/border.ts';
import { ARRANGEMENTS, TURNS } from '#core/sheet/layout.ts';
import { valuesSchema } from '#web/schemas/setting.ts';

export const sheetSchema = z.object({
  name: z.string().trim().min(1).max(60),
  widthMm: z.number().min(10).max(3000),
  heightMm: z.number().min(10).max(20_000),
  marginMm: z.number().min(0).max(200),
  matLeftMm: z.number().min(0).max(2000).optional(),
  matBottomMm: z.number().min(0).max(2000).optional(),
});

const hexColour = z.string().regex(/^#[0-9a-f]{6}$/i, 'a colour as #rrggbb');
const roleSchema = z.enum(ROLES);
export const rolesSchema = z.record(z.string().max(200), roleSchema);
const lineRolesSchema = z.record(z.string().regex(/^\d{1,7}$/, 'a line number'), roleSchema);

/** Characters of a traced cover: thousands of curves. */
const MAX_COVERED = 2_000_000;
const lineIds = z.array(z.number().int().min(0)).max(MAX_CONTOURS).readonly();
export const editSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('scale'), factor: z.number().min(0.001).max(1000) }),
  z.object({ kind: z.literal('join'), withinMm: z.number().positive().max(10) }),
  z.object({ kind: z.literal('dropDuplicates') }),
  z.object({ kind: z.literal('drop'), lineIds }),
  z.object({ kind: z.literal('smooth'), lineIds, widthMm: z.number().positive().max(20) }),
  z.object({ kind: z.literal('round'), lineIds, radiusMm: z.number().positive().max(50) }),
  z.object({ kind: z.literal('fillHoles'), lineIds }),
  z.object({
    kind: z.literal('offset'),
    lineIds,
    byMm: z.number().min(-50).max(50),
    isInked: z.boolean().default(false),
    layer: z.string().trim().min(1).max(80),
    covered: z
      .string()
      .max(MAX_COVERED)
      .regex(/^[MLCZ\d\s.e-]*$/, 'path data of moves, lines and curves')
      .optional()
      .meta({ description: 'what art covers, in mm of the file: see /api/jobs/{id}/cover' }),
    keepsHoles: z.boolean().optional(),
    closesMm: z.number().min(0).max(50).optional(),
    backing: z.enum(BACKINGS).optional(),
    isApart: z
      .boolean()
      .optional()
      .meta({ description: 'each part has a border of its own, in place of its outline' }),
    colour: hexColour.optional().meta({ description: 'printed up to the outline' }),
  }),
  z.object({
    kind: z.literal('frame'),
    like: z.number().int().min(0),
    marginMm: z.number().positive().max(200),
    radiusMm: z.number().min(0).max(200),
  }),
  z.object({ kind: z.literal('bridge'), lineIds, widthMm: z.number().positive().max(50) }),
]);

export const layoutSchema = z.object({
  isWhole: z.boolean(),
  copies: z.number().int().min(0).max(10_000).meta({ description: '0 fills one sheet' }),
  quantities: z
    .record(z.string().regex(/^\d{1,6}$/, 'the number of a piece'), z.number().int().min(0).max(10_000))
    .readonly()
    .default({})
    .meta({ description: 'copies of single pieces, instead of `copies`' }),
  turns: z.enum(TURNS),
  spacingMm: z.number().min(0).max(100),
  placements: z
    .array(
      z.object({
        piece: z.number().int().min(0),
        sheet: z.number().int().min(0).max(500),
        xMm: z
          .number()
          .min(-3000)
          .max(3000)
          .meta({ description: "where the middle of the piece's box lies" }),
        yMm: z.number().min(-20_000).max(20_000),
        turnDeg: z.number().min(-360).max(360),
      }),
    )
    .max(20_000)
    .readonly(),
  arrangement: z.enum(ARRANGEMENTS).optional().meta({ description: 'absent: as somebody laid them' }),
  byDrawing: z
    .record(
      z.string().regex(/^\d{1,6}$/, 'the number of a drawing'),
      z.object({
        copies: z.number().int().min(0).max(10_000).optional(),
        turns: z.enum(TURNS).optional(),
        isWhole: z.boolean().optional(),
      }),
    )
    .readonly()
    .optional()
    .meta({ description: 'what holds for single drawings; the first has the number 0' }),
  carrier: z
    .object({
      widthMm: z.number().min(20).max(1000),
      heightMm: z.number().min(20).max(1000),
      radiusMm: z.number().min(0).max(200),
      marginMm: z.number().min(0).max(100),
      hole: z
        .object({ diameterMm: z.number().min(1).max(60), fromTopMm: z.number().min(1).max(200) })
        .nullable(),
      role: z.enum(CUT_ROLES),
      count: z
        .number()
        .int()
        .min(0)
        .max(500)
        .meta({ description: 'how many share the pieces; 0 for as many as they need' }),
    })
    .optional()
    .meta({ description: 'the cards that pieces lie on, each cut out of the sheet' }),
});

export const printSchema = z.object({
  hasMarks: z.boolean(),
  bleedMm: z.number().min(0).max(20),
  keepsTestCorner: z.boolean(),
});

export const passChoicesSchema = z.object({
  order: z.array(z.enum(ROUTE_STEPS)).max(14).readonly().nullable(),
  cutLengthMm: z.number().min(0.5).max(100).nullable(),
  tabLengthMm: z.number().min(0.1).max(10).nullable(),
  compensatesOffset: z.boolean(),
  perforatesNatively: z.boolean().optional(),
  freeing: z.enum(STRATEGIES).optional(),
  pausesBefore: z.array(z.enum(CUT_ROLES)).max(CUT_ROLES.length).readonly().optional(),
});

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

export const borderSchema = z
  .object({
    byMm: z.number().min(-50).max(50),
    closesMm: z.number().min(0).max(50).default(0),
    backing: z.enum(BACKINGS).default('outline'),
    colour: hexColour.nullable().default(null),
  })
  .meta({ description: 'a border for each piece, in place of its outline' });

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
  image: z.string().meta({ description: 'data:image/png;base64,… or the same with jpeg' }),
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

export const pointSchema = z.object({ x: z.number(), y: z.number() });

export const planSchema = z.object({
  passes: z.array(
    z.object({
      role: z.enum(CUT_ROLES),
      operation: z.enum(OPERATIONS),
      values: valuesSchema,
      strokes: z.number(),
      cutMm: z.number(),
      travelMm: z.number(),
      seconds: z.number(),
      seat: z.number(),
      seatName: z.string(),
      perforation: z
        .object({
          tabs: z.number(),
          moved: z.number(),
          kissOnly: z.array(z.object({ contourId: z.number(), reason: z.string() })).readonly(),
        })
        .nullable(),
      pauseBefore: z.string().nullable(),
      lookAfter: z.string(),
      route: z.array(z.object({ points: z.array(pointSchema).readonly(), isTab: z.boolean() })),
    }),
  ),
  cutMm: z.number(),
  travelMm: z.number(),
  seconds: z.number(),
  sheets: z.number(),
  parts: z.number().meta({ description: 'machine files: one more for every pause' }),
  violations: z.array(z.string()).readonly(),
  printAfter: z.number().nullable(),
  assumed: z.array(z.string()).readonly(),
  freeing: z
    .object({
      options: z
        .array(
          z.object({
            way: z.enum(FREEING_WAYS),
            passes: z.number(),
            forceGf: z.number(),
            seconds: z.number(),
            wearMetres: z.number(),
            jamRisk: z.number(),
            edge: z.number(),
            bar: z.string().nullable(),
          }),
        )
        .readonly(),
      pick: z.enum(FREEING_WAYS),
      reason: z.string(),
    })
    .nullable(),
  holding: z
    .object({
      holdN: z.number(),
      dragN: z.number(),
      jerkN: z.number(),
      releaseN: z.number(),
      holdIndex: z.number(),
      popIndex: z.number(),
      steps: z.array(z.string()).readonly(),
      chances: z.array(z.number()).readonly(),
      proposedTabMm: z.number(),
      judged: z.number(),
    })
    .nullable(),
  risks: z
    .array(
      z.object({
        kind: z.enum(RISK_KINDS),
        chance: z.number(),
        causes: z.array(z.object({ words: z.string(), chance: z.number() })).readonly(),
      }),
    )
    .readonly(),
  runSheet: z
    .object({
      title: z.string(),
      subtitle: z.string(),
      sections: z
        .array(
          z.object({
            heading: z.string(),
            steps: z
              .array(
                z.object({
                  words: z.string(),
                  reason: z.string(),
                  figures: z.array(z.tuple([z.string(), z.string()]).readonly()).readonly(),
                }),
              )
              .readonly(),
          }),
        )
        .readonly(),
      cautions: z.array(z.string()).readonly(),
    })
    .nullable(),
  checklist: z
    .array(
      z.object({
        words: z.string(),
        reason: z.string(),
        state: z.enum(['toDo', 'open', 'stop']),
        id: z
          .string()
          .optional()
          .meta({ description: 'what a run is told under "accepted" to go nevertheless' }),
        way: z
          .object({ words: z.string(), step: z.enum(WAYS_OUT) })
          .optional()
          .meta({ description: 'where it is put right' }),
      }),
    )
    .readonly()
    .meta({ description: 'what to look at before the run, here and now' }),
  problem: z.string().nullable().meta({ description: 'why it cannot run yet, or null' }),
});
export type PlanReply = z.infer<typeof planSchema>;
