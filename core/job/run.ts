import type { CutRole } from '#core/drawing/lineRoles.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { RunVerdict } from '#core/setting/setting.ts';

/** `unknown`: the server stopped while the machine was cutting, and nobody can say how far it got. */
export const RUN_STATES = ['sending', 'cutting', 'waiting', 'done', 'stopped', 'failed', 'unknown'] as const;
export type RunState = (typeof RUN_STATES)[number];

/** What was reached on one share of a stroke, from 0 (its start) to 1 (its end). */
export interface ReachedSpan {
  readonly from: number;
  readonly to: number;
  readonly grade: DepthGrade;
}

/** One stroke of a run as it was sent: its points on the sheet in mm. */
export interface RunStroke {
  readonly operation: CutRole;
  /** Along a tab, where the kiss force is wanted. */
  readonly isTab: boolean;
  readonly contourId: number;
  readonly repeat: number;
  readonly points: readonly PointMm[];
}

/** What was reported of one stroke. */
export interface StrokeOutcome {
  readonly index: number;
  readonly spans: readonly ReachedSpan[];
}

/** A job sent to a machine, and what came of it. */
export interface Run {
  readonly id: number;
  readonly jobId: number;
  readonly jobName: string;
  readonly machineId: number;
  readonly conditionId: number;
  readonly state: RunState;
  readonly message: string;
  readonly sheetWidthMm: number;
  readonly sheetHeightMm: number;
  readonly strokes: readonly RunStroke[];
  readonly outcomes: readonly StrokeOutcome[];
  readonly seconds: number;
  readonly verdict: RunVerdict | null;
  readonly piecesGood: number;
  readonly piecesSpoiled: number;
  readonly note: string;
  readonly author: string;
  readonly startedAt: string;
  readonly endedAt: string | null;
}

/** States in which a run will not move by itself any more. */
export function isRunOver(state: RunState): boolean {
  return state === 'done' || state === 'stopped' || state === 'failed' || state === 'unknown';
}
