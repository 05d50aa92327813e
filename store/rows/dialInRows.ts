import { z } from 'zod';
import { DIAL_IN_STATES, type DialIn } from '#core/dialIn/dialIn.ts';
import { TEST_PIECES } from '#core/dialIn/testPiece.ts';
import { DEPTH_OPERATIONS } from '#core/stack/operation.ts';
import { jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';

export const cardSchema = z.object({
  load: z.number().int().positive(),
  purpose: z.enum(['ladder', 'confirm']),
  forces: z.array(z.number()).min(1).max(12).readonly(),
});

const boxSchema = z.object({ minX: z.number(), minY: z.number(), maxX: z.number(), maxY: z.number() });

/** More points than this are no test piece. */
const MOST_SPOT_POINTS = 4000;
const pointSchema = z.object({ x: z.number(), y: z.number() });
/** Part of a drawing, kept with the scrap: the job may change meanwhile. */
export const spotSchema = z.object({
  name: z.string().max(200),
  widthMm: z.number().positive(),
  heightMm: z.number().positive(),
  lines: z
    .array(z.array(pointSchema).min(2).readonly())
    .readonly()
    .refine((lines) => lines.reduce((sum, line) => sum + line.length, 0) <= MOST_SPOT_POINTS, {
      message: 'this spot has more detail than a test piece can hold',
    }),
});

export const scrapSchema = z.object({
  widthMm: z.number().min(20).max(2000),
  heightMm: z.number().min(20).max(5000),
  piece: z.enum(TEST_PIECES),
  taken: z.array(boxSchema).max(500).readonly(),
  spot: spotSchema.optional(),
});

const dialInRow = z.object({
  id: z.number(),
  machine_id: z.number(),
  condition_id: z.number(),
  lot: z.string(),
  colour: z.string(),
  operation: z.enum(DEPTH_OPERATIONS),
  passes: z.number(),
  speed: z.number(),
  exposure_mm: z.number(),
  state: z.enum(DIAL_IN_STATES),
  load_count: z.number(),
  /** Of the card that waits, where one does. */
  card_load: z.number().nullable(),
  card_purpose: cardSchema.shape.purpose.nullable(),
  card_forces: z.preprocess((value) => value ?? '[]', jsonColumn(z.array(z.number()).readonly())),
  scrap: jsonColumn(scrapSchema),
  author: z.string(),
  opened_at: timeColumn,
  changed_at: timeColumn,
  version: z.number(),
});

export function readDialInRow(row: unknown): DialIn {
  const one = dialInRow.parse(row);
  const { id, lot, colour, operation, passes, speed, state, scrap, author, version } = one;
  const { card_load: load, card_purpose: purpose, card_forces: forces } = one;
  return {
    id,
    lot,
    colour,
    operation,
    passes,
    speed,
    state,
    card: load === null || purpose === null ? null : { load, purpose, forces },
    scrap,
    author,
    version,
    machineId: one.machine_id,
    conditionId: one.condition_id,
    exposureMm: one.exposure_mm,
    loadCount: one.load_count,
    openedAt: one.opened_at,
    changedAt: one.changed_at,
  };
}
