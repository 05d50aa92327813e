import { z } from 'zod';
import { CUT_ROLES } from '#core/drawing/roles/lineRoles.ts';
import type { RunProgram } from '#core/program/runProgram.ts';
import { readLanguage } from '#core/protocol/findLanguage.ts';
import { jsonColumn } from '#store/rows/jsonColumn.ts';
import { SEAT_GROUNDS, SEAT_USES } from '#core/station/machine.ts';
import { settingValuesSchema } from '#core/setting/settingFields.ts';

const placing = z.object({
  leftMm: z.number(),
  bottomMm: z.number(),
  correction: z.tuple([z.number(), z.number(), z.number(), z.number(), z.number(), z.number()]),
});

const file = z.object({
  language: z.object({ id: z.string(), options: z.record(z.string(), z.unknown()) }),
  carries: z.object({ force: z.boolean(), speed: z.boolean() }),
  mmPerSPerUnit: z.number(),
  placing: placing.optional(),
});

/** As it was written before a machine had a language. */
const olderFile = z
  .object({ unitsPerMm: z.number(), carriesNumbers: z.boolean(), placing: placing.optional() })
  .transform(({ unitsPerMm, carriesNumbers, placing: at }) => ({
    language: readLanguage(undefined, unitsPerMm),
    carries: { force: carriesNumbers, speed: carriesNumbers },
    mmPerSPerUnit: 1,
    ...(at ? { placing: at } : {}),
  }));

const program = z
  .object({
    file: file.optional(),
    hpgl: olderFile.optional(),
    sheetHeightMm: z.number(),
    bladeMetres: z.number(),
    hold: z.object({ tack: z.number().nullable(), adhesiveUm: z.number().optional() }).optional(),
    isPrinted: z.boolean().optional(),
    gloss: z.number().optional(),
    marks: z
      .object({
        lengthMm: z.number(),
        spots: z.array(z.object({ name: z.string(), xMm: z.number(), yMm: z.number() })).readonly(),
      })
      .optional(),
    grounds: z.array(z.enum(SEAT_GROUNDS).nullable()).readonly().optional(),
    sheet: z.object({
      key: z.string(),
      family: z.string(),
      darkness: z.number(),
      layers: z.array(z.object({ role: z.string(), caliperUm: z.number() })),
    }),
    parts: z.array(
      z.object({
        before: z.string().nullable(),
        exposureMm: z.number(),
        fitted: z.array(z.enum(SEAT_USES)).readonly().optional(),
        passes: z.array(
          z.object({
            operation: z.enum(CUT_ROLES),
            values: settingValuesSchema,
            seat: z.number(),
            panelCut: z.number().optional(),
            from: z.number(),
            to: z.number(),
          }),
        ),
      }),
    ),
  })
  .transform(({ file: newer, hpgl, ...same }, context): RunProgram => {
    const found = newer ?? hpgl;
    if (found) return { ...same, file: found };
    context.addIssue({ code: 'custom', message: 'does not say how its file is written' });
    return z.NEVER;
  });

/** The program of a run, today's and older ones. */
export const programColumn = jsonColumn(program);
