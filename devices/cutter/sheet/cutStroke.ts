import type { Spot } from '#devices/cutter/instruction.ts';
import type { Span } from '#devices/cutter/sheet/cutSheet.ts';

/** A stroke as it lies on the sheet. */
export interface CutStroke {
  readonly path: readonly Spot[];
  readonly spans: readonly Span[];
  readonly seat: number;
  /** True grams. */
  readonly forceGf: number;
  /** By a blunt tool: nothing is cut. */
  readonly isPressed: boolean;
}
