import type { Stack } from '#core/stack/layer.ts';
import type { Family } from '#core/stack/families/families.ts';
import type { Machine } from '#core/station/machine.ts';
import type { BenchAnswer, SettingSummary } from '#web/schemas/setting.ts';

/** One setting as it is compared. */
export interface ComparedSetting {
  readonly setting: SettingSummary;
  readonly machine: Machine;
  readonly stack: Stack;
  readonly faceColour: string;
  /** Of the blade it is cut with. */
  readonly angleDeg: number;
  readonly family: Family;
  /** The price of one sheet or metre, in words; empty when nobody said. */
  readonly price: string;
  /** What the threshold model says, for kiss and through. */
  readonly bench: BenchAnswer | null;
}
