import type { ReachedSpan, RunState } from '#core/run/run.ts';

/** What everyone who watches a run is told while it goes. Positions are on the sheet, mm, y downwards. */
export type LiveEvent =
  | { readonly kind: 'position'; readonly x: number; readonly y: number; readonly stroke: number }
  | { readonly kind: 'stroke'; readonly index: number; readonly spans: readonly ReachedSpan[] }
  /** Strokes before this one have gone out to a machine that says nothing. */
  | { readonly kind: 'out'; readonly to: number }
  | { readonly kind: 'state'; readonly state: RunState; readonly message: string };
