import { openArt, type ArtSource } from '#core/artwork/printed/artSource.ts';
import { findTroubles } from '#core/checks/findTroubles.ts';
import type { CheckFacts, Trouble } from '#core/checks/trouble.ts';
import type { Drawing } from '#core/drawing/drawing.ts';
import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import { readDrawing } from '#core/artwork/readDrawing.ts';
import type { RoleRule } from '#core/drawing/roles/roleRules.ts';
import { describeLayout, type ShownLayout } from '#core/job/describeLayout.ts';
import { layOutJob, type JobDesign } from '#core/job/layOutJob.ts';
import type { Machine } from '#core/station/machine.ts';

/** What the browser's thread is asked about a job. */
export interface DesignOrder {
  readonly id: number;
  readonly design: JobDesign;
  readonly machine: Pick<Machine, 'marks' | 'printAndCut'>;
  readonly facts: RoleFacts;
  readonly rules: readonly RoleRule[];
  readonly checks: CheckFacts;
}

export type DesignReport =
  | { readonly kind: 'progress'; readonly id: number; readonly words: string; readonly share: number }
  | { readonly kind: 'layout'; readonly id: number; readonly layout: ShownLayout }
  | { readonly kind: 'troubles'; readonly id: number; readonly troubles: readonly Trouble[] }
  | { readonly kind: 'failed'; readonly id: number; readonly message: string };

let opened: { readonly source: string; readonly drawing: Drawing; readonly art: ArtSource | null } | null =
  null;

self.onmessage = ({ data }: MessageEvent<DesignOrder>) => {
  const { id, design, machine, facts, rules, checks } = data;
  const post = (report: DesignReport) => self.postMessage(report);
  const tell = (words: string) => (share: number) => post({ kind: 'progress', id, words, share });
  const read = ({ format, source }: Pick<JobDesign, 'format' | 'source'>) => {
    if (opened?.source !== source) {
      const drawing = readDrawing(format, source, tell('Reading the drawing'));
      opened = { source, drawing, art: drawing.isMoreThanLines ? openArt(source) : null };
    }
    return opened.drawing;
  };
  try {
    const laid = layOutJob(design, machine, read);
    post({ kind: 'layout', id, layout: describeLayout(design, laid, facts, rules, opened?.art) });
    const troubles = findTroubles(laid.drawing, design, checks, tell('Checking the lines'));
    post({ kind: 'troubles', id, troubles });
  } catch (error) {
    post({ kind: 'failed', id, message: error instanceof Error ? error.message : String(error) });
  }
};
