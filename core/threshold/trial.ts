import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { NormalPrior } from '#core/threshold/numerics/normalPrior.ts';
import type { NearMat, Tail } from '#core/threshold/thresholdPriors.ts';
import type { Stack } from '#core/stack/layer.ts';
import type { Family } from '#core/stack/families/families.ts';

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
  /** The deepest grade it may have been, where only a range is known: a clean run says "3 or 4". */
  readonly upTo?: DepthGrade;
  /** How far it counts, above 0 to 1; 1 when left out. A run, or a cut with an earlier blade, counts for less. */
  readonly weight?: number;
  /** Cuts with the same number lay side by side on one load, as the cells of a ladder do: they share its noise. */
  readonly load?: number;
  /** Who graded it, where anybody says. */
  readonly reader?: string;
}

/** What is believed of one sheet before its own trials: a normal, but the threshold may be far off. */
export interface SheetBelief extends NormalPrior {
  readonly tail?: Tail | undefined;
  /** The mat may lie far nearer than usual. */
  readonly nearMat?: NearMat | undefined;
  /** How carelessly the people who grade read, as far as it is known. */
  readonly readers?: Readers | undefined;
}

/** How carelessly each person reads grades, 1 for what is usual. */
export type Readers = Readonly<Record<string, number>>;

/** What is asked: a sheet on one machine, as it is believed to be, cut under these conditions. */
export interface ThresholdQuestion {
  /** In the order of LAYERED_PARAMETERS or SINGLE_PARAMETERS; see sheetPrior. */
  readonly belief: SheetBelief;
  readonly conditions: CutConditions;
}
