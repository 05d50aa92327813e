import { z } from 'zod';
import type { Store } from '#store/connection/connectStore.ts';
import { jsonColumn } from '#store/rows/jsonColumn.ts';

/** By how much the prediction of another sheet moved, in percent of force. */
export const movedSchema = z.object({ name: z.string(), percent: z.number() });

/** What a revision rested on when it was kept. */
export const evidenceSummarySchema = z.object({
  model: z.string(),
  trialCount: z.number(),
  cutIds: z.array(z.number()),
  force: z.number(),
  right: z.number(),
  under: z.number(),
  over: z.number(),
  lowerEdgeGf: z.object({ lowGf: z.number(), middleGf: z.number(), highGf: z.number() }),
  upperEdgeGf: z.object({ lowGf: z.number(), middleGf: z.number(), highGf: z.number() }),
  moved: z.array(movedSchema),
});
export type EvidenceSummary = z.infer<typeof evidenceSummarySchema>;

/** Evidence of one revision, with the search and the fit of the book it came from. */
export interface RevisionEvidence {
  readonly revision: number;
  readonly dialInId: number | null;
  readonly knowledgeId: number | null;
  readonly summary: EvidenceSummary;
}

const evidenceRow = z.object({
  revision: z.number(),
  dial_in_id: z.number().nullable(),
  knowledge_id: z.number().nullable(),
  summary: jsonColumn(evidenceSummarySchema),
});

export async function addRevisionEvidence(
  db: Store,
  settingId: number,
  evidence: RevisionEvidence,
): Promise<void> {
  await db('revision_evidence').insert({
    setting_id: settingId,
    revision: evidence.revision,
    dial_in_id: evidence.dialInId,
    knowledge_id: evidence.knowledgeId,
    summary: JSON.stringify(evidence.summary),
  });
}

/** Evidence of the revisions of a setting, the newest first; revisions kept by hand have none. */
export async function listRevisionEvidence(
  db: Store,
  settingId: number,
): Promise<readonly RevisionEvidence[]> {
  const rows = await db('revision_evidence').where({ setting_id: settingId }).orderBy('revision', 'desc');
  return rows.map((row) => {
    const { revision, dial_in_id, knowledge_id, summary } = evidenceRow.parse(row);
    return { revision, dialInId: dial_in_id, knowledgeId: knowledge_id, summary };
  });
}
