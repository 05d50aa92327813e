import { firstMissing, type IndexRanges } from '#core/collections/indexRanges.ts';
import type { RunState, StrokeOutcome } from '#core/run/run.ts';

/** Strokes that are sent between two pauses: `from` up to but not including `to`, and what hands do before. */
export interface CoursePart {
  readonly from: number;
  readonly to: number;
  readonly before: string | null;
}

/** A transmission that was named. It is sent once at most. */
export interface Sending {
  readonly key: string;
  /** The machine as it was then: another one after it lost power. `null` where it does not say. */
  readonly bootId: string | null;
  /** Strokes before this one went out and nobody knows what became of them; `null` where the machine tells. */
  readonly outTo: number | null;
}

/** All of a run that decides what happens next. */
export interface RunCourse {
  readonly state: RunState;
  readonly message: string;
  readonly parts: readonly CoursePart[];
  readonly partIndex: number;
  readonly sending: Sending | null;
  /** How many transmissions were named so far. */
  readonly named: number;
  /** Strokes that were acknowledged. */
  readonly reached: IndexRanges;
}

/** What a machine remembers of the last transmission: of which run of its power, and how far it got. */
export interface MachineMemory {
  readonly bootId: string;
  readonly job: {
    readonly key: string | null;
    readonly state: 'loaded' | 'working' | 'paused' | 'finished' | 'stopped' | 'broken';
    readonly reached: readonly StrokeOutcome[];
    readonly reason: string;
  } | null;
}

/** What happens to a run. Those of a transmission name it: what comes late of an older one counts no more. */
export type RunEvent =
  /** A server takes it up: a new one, or one that another server left. */
  | { readonly kind: 'taken' }
  /** `nth`: as the command to prepare it said. */
  | {
      readonly kind: 'named';
      readonly key: string;
      readonly nth: number;
      readonly bootId: string | null;
      readonly from: number;
    }
  | { readonly kind: 'unreachable'; readonly reason: string }
  | { readonly kind: 'reached'; readonly strokes: readonly StrokeOutcome[] }
  /** All bytes are out to a machine that says nothing. */
  | { readonly kind: 'sentAll'; readonly key: string }
  | { readonly kind: 'finished'; readonly key: string }
  | { readonly kind: 'halted'; readonly key: string; readonly reason: string }
  /** `outTo`: strokes before it had gone out. `canAsk`: the machine remembers what it did. */
  | ({ readonly kind: 'linkLost' | 'silent' } & Lost)
  | { readonly kind: 'remembered'; readonly key: string; readonly memory: MachineMemory }
  /** It was asked again and again and does not answer. */
  | { readonly kind: 'forgotten'; readonly key: string }
  | { readonly kind: 'stopOrdered' }
  | { readonly kind: 'stopTaken'; readonly key: string }
  | { readonly kind: 'stopRefused'; readonly key: string; readonly outTo: number | null }
  | { readonly kind: 'pauseOrdered' }
  | { readonly kind: 'paused'; readonly key: string }
  | { readonly kind: 'resumeOrdered' }
  | { readonly kind: 'resumed'; readonly key: string }
  /** Hands are done, or a person looked; `leave`: what nobody knows of is cut. */
  | { readonly kind: 'handsDone'; readonly open: 'again' | 'leave' }
  | { readonly kind: 'repeatOrdered'; readonly part: CoursePart }
  | { readonly kind: 'unloaded' }
  | { readonly kind: 'failed'; readonly reason: string };

interface Lost {
  readonly key: string;
  readonly outTo: number;
  readonly canAsk: boolean;
  readonly reason: string;
}

/** What is to be done about it, outside. */
export type RunCommand =
  /** Find the machine, and name a transmission of a part from a stroke on. */
  | { readonly kind: 'prepare'; readonly nth: number; readonly part: number; readonly from: number }
  | { readonly kind: 'transmit'; readonly key: string; readonly part: number; readonly from: number }
  /** Ask the machine what it did of a transmission; `isLater`: after a moment. */
  | { readonly kind: 'ask'; readonly key: string; readonly isLater: boolean }
  | { readonly kind: 'tell'; readonly order: 'stop' | 'pause' | 'resume'; readonly key: string }
  /** The run is over: blade and mat wear by what was acknowledged. */
  | { readonly kind: 'wear' };

/**
 * The first stroke of a part that nobody acknowledged, or `null`.
 *
 * @example firstOpen({ parts: [], partIndex: 0, reached: 0 }) // null
 */
export function firstOpen({ parts, partIndex, reached }: Pick<RunCourse, 'parts' | 'partIndex' | 'reached'>) {
  const part = parts[partIndex];
  return part ? firstMissing(reached, part.from, part.to) : null;
}
