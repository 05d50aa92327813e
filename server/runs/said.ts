import type { Block } from '#core/protocol/machineLanguage.ts';
import type { Channel } from '#server/links/link.ts';
import type { StrokeSeconds } from '#server/runs/strokeSeconds.ts';
import type { Control } from '#server/runs/control.ts';

/** How sending ended, as far as the link tells. `halted`: from here; whoever halted it says what comes of it. */
export type SendEnd =
  | { readonly kind: 'sentAll' | 'finished' | 'halted' }
  | { readonly kind: 'stopped'; readonly reason: string }
  | { readonly kind: 'lost' | 'silent'; readonly reason: string };

/** Eyes on a stand-in while it cuts. */
export interface Watching {
  /** What was seen last: that it finished or stopped, or that nothing is seen any more. */
  readonly end: Promise<SendEnd>;
  close(): void;
}

/** What is said over a channel. */
export interface Said {
  readonly blocks: readonly Block[];
  readonly channel: Channel;
  readonly control: Control;
  readonly seconds: StrokeSeconds;
  /** Eyes that look on; `null` at a real machine. */
  readonly watching: Watching | null;
}
