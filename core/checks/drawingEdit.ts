import type { Backing } from '#core/drawing/border/border.ts';

/** A mend to a drawing. Line ids stay what they were; new lines get new ones. Lengths in mm. */
export type DrawingEdit =
  /** The whole drawing larger or smaller. */
  | { readonly kind: 'scale'; readonly factor: number }
  /** Open lines whose ends meet within this become one line, and an outline where they meet all round. */
  | { readonly kind: 'join'; readonly withinMm: number }
  /** Of lines that lie on each other one stays. */
  | { readonly kind: 'dropDuplicates' }
  | { readonly kind: 'drop'; readonly lineIds: readonly number[] }
  /** Outlines without bays and spikes narrower than this. */
  | { readonly kind: 'smooth'; readonly lineIds: readonly number[]; readonly widthMm: number }
  | { readonly kind: 'round'; readonly lineIds: readonly number[]; readonly radiusMm: number }
  /** Outlines within these are dropped. */
  | { readonly kind: 'fillHoles'; readonly lineIds: readonly number[] }
  /** A new outline around (or inside, below 0) what these lines cover. */
  | {
      readonly kind: 'offset';
      readonly lineIds: readonly number[];
      readonly byMm: number;
      /** The strokes of these lines are ink: their width counts. */
      readonly isInked: boolean;
      readonly layer: string;
      /**
       * What art covers that lines do not tell, as path data in mm of the file: traced from the picture that is printed.
       */
      readonly covered?: string | undefined;
      /** Holes of what is covered become lines too. */
      readonly keepsHoles?: boolean | undefined;
      /** Gaps this narrow are closed before, mm. */
      readonly closesMm?: number | undefined;
      /** What it follows; the lines themselves when it is left out. */
      readonly backing?: Backing | undefined;
      /** A border in place of the outlines among the lines. */
      readonly isOwn?: boolean | undefined;
      /** Each part is a piece by itself, whose border is never joined with a neighbour's. */
      readonly keepsApart?: boolean | undefined;
      /** The colour that is printed up to it, #rrggbb; the sheet's own when it is left out. */
      readonly colour?: string | undefined;
    }
  /** A frame with round corners around everything, drawn like one of its lines. */
  | { readonly kind: 'frame'; readonly like: number; readonly marginMm: number; readonly radiusMm: number }
  /** Bars that hold the islands within these outlines of a stencil. */
  | { readonly kind: 'bridge'; readonly lineIds: readonly number[]; readonly widthMm: number };
