import type { RouteStep } from '#core/passes/routeSteps.ts';

/** A bench that is not the demo's: its machine, its sheet, what is set for it, and what is made there. */
export interface Bench {
  readonly machine: object;
  readonly family: string;
  readonly stack: readonly object[];
  /** Values to set for each operation. */
  readonly settings: Readonly<Record<string, object>>;
  readonly drawing: string;
  readonly roles: Readonly<Record<string, string>>;
  /** What differs of its material from a plain matt one. */
  readonly material?: object;
  readonly details?: object;
  readonly print?: object;
  /** What is done in which order, where it is not the usual one. */
  readonly order?: readonly RouteStep[];
}

/** What a run was, and what came of each of its strokes. */
export interface StrangersRun {
  readonly state: string;
  readonly strokes: readonly {
    readonly operation: string;
    readonly points: readonly { readonly x: number }[];
  }[];
  readonly outcomes: readonly {
    readonly index: number;
    readonly spans: readonly { readonly grade: number }[];
  }[];
}
