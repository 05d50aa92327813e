import { z } from 'zod';
import { MAX_CONTOURS } from '#core/drawing/drawing.ts';
import { CUT_ROLES, ROLES } from '#core/drawing/roles/lineRoles.ts';
import { STRATEGIES } from '#core/setting/settingFields.ts';
import { ROUTE_STEPS } from '#core/passes/routeSteps.ts';
import { BACKINGS } from '#core/drawing/border/border.ts';
import { ARRANGEMENTS, TURNS } from '#core/sheet/layout.ts';

export const sheetSchema = z.object({
  name: z.string().trim().min(1).max(60),
  widthMm: z.number().min(10).max(3000),
  heightMm: z.number().min(10).max(20_000),
  marginMm: z.number().min(0).max(200),
  matLeftMm: z.number().min(0).max(2000).optional(),
  matBottomMm: z.number().min(0).max(2000).optional(),
  wholeHeightMm: z
    .number()
    .min(10)
    .max(20_000)
    .optional()
    .meta({ description: 'of the sheet of which this is one end' }),
  isStarted: z.boolean().optional().meta({ description: 'its other end was used before' }),
});

export const hexColour = z.string().regex(/^#[0-9a-f]{6}$/i, 'a colour as #rrggbb');
export const roleSchema = z.enum(ROLES);
export const rolesSchema = z.record(z.string().max(200), roleSchema);
export const lineRolesSchema = z.record(z.string().regex(/^\d{1,7}$/, 'a line number'), roleSchema);

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
    isOwn: z.boolean().optional().meta({ description: 'a border in place of the outlines among the lines' }),
    keepsApart: z
      .boolean()
      .optional()
      .meta({ description: 'each part is a piece by itself: borders are never joined' }),
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
        page: z.number().int().min(0).max(500).optional(),
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

export const borderSchema = z
  .object({
    byMm: z.number().min(-50).max(50),
    closesMm: z.number().min(0).max(50).default(0),
    backing: z.enum(BACKINGS).default('outline'),
    colour: hexColour.nullable().default(null),
  })
  .meta({ description: 'a border for each piece, in place of its outline' });
