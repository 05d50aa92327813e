import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';

export const JUDGED_QUANTITIES = ['tabs', 'crease'] as const;
export type JudgedQuantity = (typeof JUDGED_QUANTITIES)[number];

/** What a piece was made with: lengths in mm for tabs, the force on the machine's scale and passes for a crease. */
const givenTabsSchema = z.object({
  tabLengthMm: z.number().min(0.1, 'a tab of at least 0.1 mm').max(20, 'a tab of at most 20 mm'),
  cutLengthMm: z.number().min(1, 'a cut of at least 1 mm').max(200, 'a cut of at most 200 mm'),
  tabs: z.number().int().min(1).max(10_000).optional().meta({ description: 'how many the piece had' }),
  areaMm2: z.number().positive().max(1e7).optional().meta({ description: 'of the piece' }),
});
const givenCreaseSchema = z.object({ force: z.number(), passes: z.number().int().min(1).max(12) });
export type GivenCrease = z.infer<typeof givenCreaseSchema>;
export const givenSchema = z.union([givenTabsSchema, givenCreaseSchema]);
export type Given = z.infer<typeof givenSchema>;

/** A piece as it was judged, from 0 (too weak) to 4 (too strong). */
export interface JudgedPiece {
  readonly id: number;
  readonly quantity: JudgedQuantity;
  readonly given: Given;
  readonly seen: number;
  readonly author: string;
  readonly at: string;
}

const pieceRow = z.object({
  id: z.number(),
  quantity: z.enum(JUDGED_QUANTITIES),
  given: jsonColumn(givenSchema),
  seen: z.number(),
  author: z.string(),
  at: timeColumn,
});

/** Pieces of a sheet on a machine, oldest first, without those taken back. */
export async function listJudgedPieces(
  db: Store,
  conditionId: number,
  machineId: number,
  quantity: JudgedQuantity,
): Promise<readonly JudgedPiece[]> {
  const rows = await db('judged_pieces')
    .where({ condition_id: conditionId, machine_id: machineId, quantity, undone_at: null })
    .orderBy(['at', 'id']);
  return rows.map((row) => pieceRow.parse(row));
}

export async function addJudgedPiece(
  db: Store,
  piece: Omit<JudgedPiece, 'id' | 'at'> & {
    readonly conditionId: number;
    readonly machineId: number;
    readonly lot: string;
  },
  now: Date,
): Promise<number> {
  const [id] = await db('judged_pieces').insert({
    condition_id: piece.conditionId,
    machine_id: piece.machineId,
    quantity: piece.quantity,
    given: JSON.stringify(piece.given),
    seen: piece.seen,
    lot: piece.lot,
    author: piece.author,
    at: now,
  });
  return id as number;
}

/** @throws AppError `notFound` when it is not there (any more) */
export async function undoJudgedPiece(db: Store, id: number, now: Date): Promise<void> {
  const changed = await db('judged_pieces').where({ id, undone_at: null }).update({ undone_at: now });
  if (changed === 0) throw new AppError('notFound', `piece ${id} is not there, or was taken back already`);
}
