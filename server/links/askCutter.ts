import { z } from 'zod';
import { orderAtPanel, spanSchema, type CutterAddress } from '#server/links/cutterLink.ts';

const jobSchema = z.object({
  key: z.string().nullable(),
  state: z.enum(['loaded', 'working', 'paused', 'finished', 'stopped', 'broken']),
  reached: z.array(z.object({ index: z.number().int().min(0), spans: z.array(spanSchema) })),
  cutMetres: z.number(),
  reason: z.string(),
});

const reportSchema = z.object({ bootId: z.string(), isBusy: z.boolean(), job: jobSchema.nullable() });

/** What a cutter remembers of the job it was loaded for. */
export type CutterMemory = z.infer<typeof reportSchema>;

/**
 * Asks a cutter what it remembers; `null` for one that never answers.
 *
 * @throws AppError `deviceUnreachable` when it should answer and does not
 */
export async function askCutter(address: CutterAddress): Promise<CutterMemory | null> {
  if (address.panelPort === null) return null;
  return reportSchema.parse(await orderAtPanel(address, { order: 'report' }));
}
