import type { RunStroke } from '#core/program/runStroke.ts';
import type { DepthGrade, Flaw } from '#core/stack/depthGrade.ts';
import type { RunVerdict } from '#core/setting/setting.ts';

/**
 * `stopping`: a stop was ordered and the machine is being told. `waiting`: for hands at a stop of the plan. `held`: something went wrong and the sheet is still in; a person says how
 * to go on. `looking`: all is cut and the sheet has not moved: a pass can still be repeated. `unknown`: ended with
 * nobody knowing how far it got.
 */
export const RUN_STATES = [
  'sending',
  'cutting',
  'paused',
  'stopping',
  'waiting',
  'held',
  'looking',
  'done',
  'stopped',
  'failed',
  'unknown',
] as const;
export type RunState = (typeof RUN_STATES)[number];

/** What was reached on one share of a stroke, from 0 (its start) to 1 (its end). */
export interface ReachedSpan {
  readonly from: number;
  readonly to: number;
  readonly grade: DepthGrade;
}

/** What was reported of one stroke of the run, by its number: no spans where nobody looked. */
export interface StrokeOutcome {
  readonly index: number;
  readonly spans: readonly ReachedSpan[];
}

/** A job sent to a machine, and what came of it. */
export interface Run {
  readonly id: number;
  readonly jobId: number;
  readonly jobName: string;
  /** The search that it cuts test pieces for, or `null` for a job. */
  readonly dialInId: number | null;
  /** What is judged of it, where it is a piece cut for that; `null` for a job. */
  readonly judged: 'tabs' | 'crease' | null;
  readonly machineId: number;
  readonly conditionId: number;
  readonly state: RunState;
  readonly message: string;
  readonly sheetWidthMm: number;
  readonly sheetHeightMm: number;
  readonly strokes: readonly RunStroke[];
  /** Strokes before this one went out and nobody knows what became of them; `null` where the machine tells. */
  readonly outTo: number | null;
  readonly outcomes: readonly StrokeOutcome[];
  readonly seconds: number;
  readonly verdict: RunVerdict | null;
  readonly piecesGood: number;
  readonly piecesSpoiled: number;
  readonly note: string;
  /** Flaws seen on it. */
  readonly flaws: readonly Flaw[];
  readonly sheetsUsed: number;
  /** Relative humidity of the room, %, or `null`. */
  readonly humidity: number | null;
  readonly author: string;
  readonly startedAt: string;
  readonly endedAt: string | null;
}

/**
 * States in which a run will not move by itself any more.
 *
 * @example isRunOver('done') // true
 */
export function isRunOver(state: RunState): boolean {
  return state === 'done' || state === 'stopped' || state === 'failed' || state === 'unknown';
}

/**
 * Whether a run cuts test pieces: it is graded where they are looked for, and nothing is noted of it.
 *
 * @example isTestRun({ dialInId: null, judged: 'tabs' }) // true
 */
export function isTestRun({ dialInId, judged }: Pick<Run, 'dialInId' | 'judged'>): boolean {
  return dialInId !== null || judged !== null;
}
