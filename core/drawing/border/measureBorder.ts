import { closeGaps, drawBorder, type BorderOrder } from '#core/drawing/border/border.ts';
import { itemAt } from '#core/collections/itemAt.ts';
import { bisect } from '#core/geometry/bisect.ts';
import { fillHoles, offsetRings, type Rings } from '#core/geometry/clip.ts';

/** What a border comes to. */
export interface MeasuredBorder {
  /** The borders themselves. */
  readonly rings: Rings;
  /** How many come off the sheet by themselves. */
  readonly outlines: number;
  /** How many parts it goes around, gaps closed. */
  readonly parts: number;
  /** The narrowest neck of an outline, where it would tear, mm; `null` where none is narrower than 20 mm. */
  readonly thinnestMm: number | null;
  /**
   * The least gap to close that makes one piece of all at this border, with necks that last, mm; 0 where it is one
   * without, `null` where none up to 40 mm does.
   */
  readonly leastCloseMm: number | null;
  /** The least border that makes one piece of all without closing gaps, mm; `null` likewise. */
  readonly leastBorderMm: number | null;
}

/** A narrower neck between two parts tears when the piece is lifted, mm. Common practice, no source. */
export const NECK_MM = 2;
const WIDEST_NECK_MM = 20;
const MOST_GAP_MM = 40;
/** Figures are found to this, mm: nobody cuts finer. */
const STEP_MM = 0.05;

/**
 * How many pieces a border makes, how thin they get, and what would make them one.
 *
 * @example measureBorder([square], { byMm: 1, closesMm: 0, backing: 'outline' }).outlines // 1
 */
export function measureBorder(covered: Rings, order: BorderOrder): MeasuredBorder {
  const rings = drawBorder(covered, order);
  return {
    rings,
    outlines: rings.length,
    parts: fillHoles(closeGaps(covered, order.closesMm)).length,
    thinnestMm: thinnestNeck(rings),
    leastCloseMm: leastFor(covered, MOST_GAP_MM, (closesMm) => ({ byMm: order.byMm, closesMm })),
    leastBorderMm: leastBorder(covered),
  };
}

/**
 * The least border that makes one piece of all without closing gaps, held together by necks that last.
 *
 * @returns mm; 0 where all is one already, `null` where none up to 20 mm does
 * @example leastBorder([square]) // 0
 */
export function leastBorder(covered: Rings): number | null {
  return leastFor(covered, MOST_GAP_MM / 2, (byMm) => ({ byMm, closesMm: 0 }));
}

/** The least figure that makes one piece whose necks last; whatever is enough, more is too. */
function leastFor(
  covered: Rings,
  most: number,
  orderOf: (figure: number) => { readonly byMm: number; readonly closesMm: number },
): number | null {
  const isOne = (figure: number) => {
    const { byMm, closesMm } = orderOf(figure);
    const outline = fillHoles(offsetRings(closeGaps(covered, closesMm), byMm));
    return outline.length === 1 && offsetRings(outline, -NECK_MM / 2).length === 1;
  };
  if (fillHoles(covered).length === 1) return 0;
  if (isOne(0)) return 0;
  if (!isOne(most)) return null;
  const [, enough] = bisect(0, most, STEP_MM, isOne);
  return Math.ceil(enough / STEP_MM) * STEP_MM;
}

/** Widths between which a neck is looked for: a wide ring falls apart late or never. */
const NECK_STEPS_MM = [0, 1, 2, 4, 7, 12, WIDEST_NECK_MM] as const;

/** A ring falls into parts when it is made narrower by its neck. */
function thinnestNeck(rings: Rings): number | null {
  const necks = rings.flatMap((ring) => {
    const falls = (width: number) => offsetRings([ring], -width / 2).length > 1;
    const at = NECK_STEPS_MM.findIndex((width) => width > 0 && falls(width));
    return at < 0
      ? []
      : [bisect(itemAt(NECK_STEPS_MM, at - 1), itemAt(NECK_STEPS_MM, at), STEP_MM, falls)[1]];
  });
  return necks.length === 0 ? null : Math.min(...necks);
}
