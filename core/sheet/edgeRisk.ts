import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import { ROUNDING } from '#core/units/rounding.ts';
import { normalCdf } from '#core/threshold/numerics/normal.ts';

/** How far print and cut lie apart on a machine: a steady part and what varies from sheet to sheet, mm. */
export interface RegistrationError {
  readonly meanXMm: number;
  readonly meanYMm: number;
  /** Standard deviation along each axis. */
  readonly sdMm: number;
  /** Where the figures come from. */
  readonly source: 'measured' | 'habit';
}

/**
 * What is believed of a machine that nobody measured: 19 sheets in 20 lie within 1/16 inch.
 * Common practice, no source (T9).
 */
export const USUAL_ERROR: RegistrationError = {
  meanXMm: 0,
  meanYMm: 0,
  sdMm: 1.5875 / Math.sqrt(-2 * Math.log(0.05)),
  source: 'habit',
};

/** How the edge of a piece is made. */
export interface EdgeOrder {
  readonly error: RegistrationError;
  /** Ink beyond the cut line. */
  readonly bleedMm: number;
  /** Blank rim inside the cut line; 0 where ink reaches the edge. */
  readonly borderMm: number;
  /** Distance from a cut line to its neighbour's. */
  readonly spacingMm: number;
  /** Whether art at the edge has the sheet's own colour, so that no white shows. */
  readonly isSheetColoured: boolean;
}

/** Chances that one sheet shows a fault. */
export interface EdgeRisk {
  /** The sheet's colour shows along an edge that should be inked. */
  readonly whiteEdge: number;
  /** Ink of a piece reaches into its neighbour. */
  readonly inkInNeighbour: number;
  /** With a border: ink runs over the cut line. */
  readonly borderLost: number;
  /** The shift that 19 sheets in 20 stay below, mm, and its direction as the steady part has it. */
  readonly worst: { readonly xMm: number; readonly yMm: number; readonly mm: number };
}

/** Steps of the sums over shifts: the chance is good to 1e-4. */
const STEPS = 240;

/**
 * The chances of a white edge, of ink in a neighbour and of a lost border on one sheet: how much of the shift's
 * distribution lies beyond the bleed, the rest of the gap, or the border. The shift varies alike in both directions.
 *
 * Source: with no steady part the length of the shift is Rayleigh distributed, with one it is Rice distributed (any
 * textbook of probability); both come from one integral here.
 * @example edgeRisk({ error: { meanXMm: 0, meanYMm: 0, sdMm: 0.5, source: 'habit' }, bleedMm: 1, borderMm: 0, spacingMm: 5, isSheetColoured: false }).whiteEdge // 0.135
 */
export function edgeRisk(order: EdgeOrder): EdgeRisk {
  const { error, bleedMm, borderMm, spacingMm, isSheetColoured } = order;
  const hasBorder = borderMm > 0;
  const worstMm = quantile(error, 0.95);
  const mean = Math.hypot(error.meanXMm, error.meanYMm);
  const [ux, uy] =
    mean > ROUNDING ? [error.meanXMm / mean, error.meanYMm / mean] : [Math.SQRT1_2, Math.SQRT1_2];
  return {
    whiteEdge: hasBorder || isSheetColoured ? 0 : chanceBeyond(error, bleedMm),
    inkInNeighbour: hasBorder ? 0 : chanceBeyond(error, Math.max(0, spacingMm - bleedMm)),
    borderLost: hasBorder ? chanceBeyond(error, borderMm) : 0,
    worst: { xMm: ux * worstMm, yMm: uy * worstMm, mm: worstMm },
  };
}

/** What keeps the chances below a risk. */
export interface BleedAdvice {
  readonly bleedMm: number;
  /** Least distance between cut lines that keeps ink out of the neighbour. */
  readonly spacingMm: number;
  /** Least border that is not lost, for those who prefer one. */
  readonly borderMm: number;
}

/**
 * The bleed, spacing and border, in whole tenths of a mm, that keep each chance below `risk`.
 *
 * @example adviseBleed({ meanXMm: 0, meanYMm: 0, sdMm: 0.3 }, 0.01).bleedMm // 1
 */
export function adviseBleed(error: RegistrationError, risk: number): BleedAdvice {
  const reach = Math.ceil(quantile(error, 1 - risk) * 10 - ROUNDING) / 10;
  return { bleedMm: reach, spacingMm: 2 * reach, borderMm: reach };
}

/**
 * The chance that the shift is longer than a distance.
 *
 * @example chanceBeyond({ meanXMm: 0, meanYMm: 0, sdMm: 0.5 }, 1) // 0.135
 */
export function chanceBeyond({ meanXMm, meanYMm, sdMm }: RegistrationError, distanceMm: number): number {
  const mean = Math.hypot(meanXMm, meanYMm);
  if (sdMm <= 0) return mean > distanceMm ? 1 : 0;
  if (distanceMm <= 0) return 1;
  // Along the steady part the shift is normal around it; across it a circle leaves ±sqrt(d² - x²).
  let inside = 0;
  const width = (2 * distanceMm) / STEPS;
  for (let step = 0; step < STEPS; step++) {
    const x = -distanceMm + (step + 0.5) * width;
    const half = Math.sqrt(Math.max(0, distanceMm * distanceMm - x * x));
    const density = Math.exp(-0.5 * ((x - mean) / sdMm) ** 2) / (sdMm * Math.sqrt(2 * Math.PI));
    inside += density * (2 * normalCdf(half / sdMm) - 1) * width;
  }
  return Math.min(1, Math.max(0, 1 - inside));
}

function quantile(error: RegistrationError, share: number): number {
  let low = 0;
  let high = Math.hypot(error.meanXMm, error.meanYMm) + 8 * error.sdMm + LENGTH_MM;
  for (let step = 0; step < 50; step++) {
    const middle = (low + high) / 2;
    if (chanceBeyond(error, middle) > 1 - share) low = middle;
    else high = middle;
  }
  return high;
}
