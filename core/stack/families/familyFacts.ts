import type { Stack } from '#core/stack/layer.ts';

/**
 * Everything that is said of a family of sheets and of no other: a family is one file of these. Figures are common
 * practice, no source, where nothing else is said.
 */
export interface FamilyFacts {
  /** Its name in a sentence. */
  readonly name: string;
  /** A usual stack to start from, its layers marked as assumed until they are measured. */
  readonly startStack: Stack;
  /** Of its face or body, kg/m³, to turn a weight into a thickness. */
  readonly densityKgPerM3: number;
  /** What it usually takes. */
  readonly habit: FamilyHabit;
  /** Speed to start from, mm/s: slower where the sheet is stiff. */
  readonly startSpeedMmPerS: number;
  /** Passes to start a through cut with. */
  readonly throughPasses: number;
  /** Finest detail a drag blade makes in it, mm. */
  readonly finestMm: number;
  /** How fast it wears a blade, against film at 1. */
  readonly abrasion: number;
  /** Tack index of a mat: below the first it slips, above the second its liner or face tears. */
  readonly wantedTack: readonly [number, number];
  /** How long ink on it dries, min: on a matt face, and on a gloss one. A clear finish waits longest in any family. */
  readonly inkDryMin: { readonly matt: number; readonly gloss: number };
  /** What a tab bears before it tears, N/mm²: its liner, or its own body where it has none. */
  readonly tensileMPa: { readonly liner: number; readonly body: number };
  /** It has a grain, and its fibres bunch under a heavy pass. */
  readonly isFibrous: boolean;
  /** It slides on a worn mat. */
  readonly isSlick: boolean;
  /** Paint goes through its holes: what nothing holds falls out. */
  readonly isPaintedThrough: boolean;
  /** It is pressed onto something with heat, and rests after printing. */
  readonly isPressedOn: boolean;
}

/** What a family usually takes. Forces in gf at 100 mm/s with a fresh blade and one pass. */
export interface FamilyHabit {
  /** Usual kiss force; for a single layer the usual force to part it. */
  readonly usualGf: number;
  /** Usual force to part the stack, over the kiss force; 1 for a single layer. */
  readonly throughRatio: number;
  /** Caliper of the face (or body) that the usual force belongs to, in µm. */
  readonly midFaceUm: number;
  /** Caliper of the liner that the ratio belongs to, in µm; 0 for a single layer. */
  readonly midLinerUm: number;
}
