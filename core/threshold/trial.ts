import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { Family, Stack } from '#core/stack/layer.ts';

/** What the model knows of a sheet. `darkness` is the pigment of its colour, from 0 (pale) to 1 (black). */
export interface SheetTraits {
  readonly family: Family;
  readonly stack: Stack;
  readonly darkness: number;
}

/** How a cut is made, apart from its force. */
export interface CutConditions {
  readonly passes: number;
  readonly speedMmPerS: number;
  /** Travel of the blade so far, in metres. */
  readonly bladeMetres: number;
}

/** One test cut as the model sees it. Force is in nominal gram-force of the machine that cut it. */
export interface Trial extends CutConditions {
  readonly forceGf: number;
  readonly grade: DepthGrade;
}

/** What is asked: a sheet, on one machine, cut under these conditions. */
export interface ThresholdQuestion {
  readonly sheet: SheetTraits;
  readonly conditions: CutConditions;
}
