import { itemAt } from '#core/collections/itemAt.ts';
import { cusumChart } from '#core/wear/cusum.ts';
import { ewmaChart, type EwmaChart } from '#core/wear/ewma.ts';

/** One graded cut against what was expected of it, with what was in use. */
export interface DriftPoint {
  /** ISO 8601. */
  readonly at: string;
  /** Standard deviations; above 0 it needed more force than expected. */
  readonly residual: number;
  readonly bladeId: number | null;
  /** Travel of the blade, m. */
  readonly bladeMetres: number;
  readonly matId: number | null;
  readonly sheet: string;
  readonly lot: string;
  /** Relative humidity of the room, %, or `null` where nobody noted it. */
  readonly humidity: number | null;
}

/** What may be behind a drift. */
export const DRIFT_CAUSES = ['bladeWorn', 'bladeFitted', 'lot', 'sheet', 'damp', 'mat', 'machine'] as const;
export type DriftCause = (typeof DRIFT_CAUSES)[number];

/** A cause with its chance and the reason in words. */
export interface RankedCause {
  readonly cause: DriftCause;
  readonly chance: number;
  readonly reason: string;
}

/** What the residuals of a machine say. */
export interface Drift {
  readonly ewma: EwmaChart;
  readonly upperSums: readonly number[];
  readonly lowerSums: readonly number[];
  /** The newest alarm that still stands, or `null` when all is quiet. */
  readonly alarm: DriftAlarm | null;
}

export interface DriftAlarm {
  /** `more`: everything needs more force than it did. */
  readonly direction: 'more' | 'less';
  /** Index of the point that raised it, and of the one at which the shift began. */
  readonly raised: number;
  readonly began: number;
  /** Likeliest first. */
  readonly causes: readonly RankedCause[];
}

/** Usual chart constants (Montgomery, Introduction to Statistical Quality Control): shifts of one sd are looked for. */
export const EWMA_LAMBDA = 0.2;
export const CUSUM_ALLOWANCE = 0.5;
export const CUSUM_DECISION = 4.5;
/** How far the charts reach back for an alarm that still stands. */
const STANDING = 6;

/**
 * Watches graded cuts of a machine: an alarm stands when a sum has passed its decision and has not come back, or the
 * weighted mean is outside its limits. Its causes are ranked by how well each explains the residuals since.
 *
 * @param points oldest first
 * @example findDrift([]).alarm // null
 */
export function findDrift(points: readonly DriftPoint[]): Drift {
  const residuals = points.map(({ residual }) => residual);
  const ewma = ewmaChart(residuals, { lambda: EWMA_LAMBDA, target: 0, sd: 1 });
  const cusum = cusumChart(residuals, { target: 0, allowance: CUSUM_ALLOWANCE, decision: CUSUM_DECISION });
  const more = standingAlarm(
    cusum.upper,
    ewma.means.map((mean) => mean > ewma.upper),
  );
  const less = standingAlarm(
    cusum.lower,
    ewma.means.map((mean) => mean < ewma.lower),
  );
  const direction = more ? 'more' : 'less';
  const found = more ?? less;
  return {
    ewma,
    upperSums: cusum.upper,
    lowerSums: cusum.lower,
    alarm: found ? { direction, ...found, causes: rankCauses(points, found.began, direction) } : null,
  };
}

function standingAlarm(
  sums: readonly number[],
  isOutside: readonly boolean[],
): { readonly raised: number; readonly began: number } | null {
  const last = sums.length - 1;
  const isHigh = (index: number) => itemAt(sums, index) > CUSUM_DECISION || isOutside[index] === true;
  let raised = -1;
  for (let index = last; index >= 0 && index > last - STANDING; index--) if (isHigh(index)) raised = index;
  if (raised < 0 || itemAt(sums, last) === 0) return null;
  while (raised > 0 && isHigh(raised - 1)) raised -= 1;
  // The shift began after the sum was last at rest: the usual estimate of a tabular sum.
  let began = raised;
  while (began > 0 && itemAt(sums, began - 1) > 0) began -= 1;
  return { raised, began };
}

/** How often each is the reason, before anything is known. Common practice, no source. */
const PRIORS: Readonly<Record<DriftCause, number>> = {
  bladeWorn: 0.42,
  bladeFitted: 0.14,
  lot: 0.16,
  sheet: 0.06,
  damp: 0.08,
  mat: 0.05,
  machine: 0.09,
};

function rankCauses(
  points: readonly DriftPoint[],
  began: number,
  direction: 'more' | 'less',
): readonly RankedCause[] {
  // Each cause predicts which points shift, against those before the shift began.
  const window = points.slice(Math.max(0, began - 12));
  const sign = direction === 'more' ? 1 : -1;
  const explained = DRIFT_CAUSES.map((cause) => {
    const options = patternsOf(cause, window, points.slice(began));
    const best = options
      .map((option) => ({ ...option, gain: explainedBy(option.pattern, window, sign) }))
      .reduce<(Explanation & { gain: number }) | null>(
        (top, one) => (top && top.gain >= one.gain ? top : one),
        null,
      );
    // Each value that could have been named is a chance to be right by accident.
    const gain = best ? best.gain - Math.log(options.length) : UNEXPLAINED;
    return { cause, score: Math.log(PRIORS[cause]) + gain, reason: best?.reason ?? NOTHING_CHANGED[cause] };
  });
  const top = Math.max(...explained.map(({ score }) => score));
  const sum = explained.reduce((all, { score }) => all + Math.exp(score - top), 0);
  return explained
    .map(({ cause, score, reason }) => ({ cause, chance: Math.exp(score - top) / sum, reason }))
    .sort((a, b) => b.chance - a.chance);
}

/** A cause that explains nothing is not impossible, in log likelihood. */
const UNEXPLAINED = -6;

const NOTHING_CHANGED: Readonly<Record<DriftCause, string>> = {
  bladeWorn: 'the blade has hardly travelled since',
  bladeFitted: 'no other blade was fitted',
  lot: 'no other lot was cut',
  sheet: 'only one material was cut',
  damp: 'the room was not damp, or nobody noted it',
  mat: 'no other mat was used',
  machine: 'nothing shifted all at once',
};

/** A shape that a cause gives the residuals, between 0 and 1, and the words for it. */
interface Explanation {
  readonly pattern: readonly number[];
  readonly reason: string;
}

/** The shapes a cause could give a window of points; none when nothing of it changed. */
function patternsOf(
  cause: DriftCause,
  window: readonly DriftPoint[],
  since: readonly DriftPoint[],
): readonly Explanation[] {
  const step = (isShifted: (point: DriftPoint) => boolean, reason: string): readonly Explanation[] => {
    const pattern = window.map((point) => (isShifted(point) ? 1 : 0));
    const shifted = pattern.reduce<number>((sum, one) => sum + one, 0);
    return shifted === 0 || shifted === pattern.length ? [] : [{ pattern, reason }];
  };
  const values = <T>(of: (point: DriftPoint) => T) => [...new Set(since.map(of))];
  switch (cause) {
    case 'bladeWorn':
      return values(({ bladeId }) => bladeId).flatMap((bladeId) => growWithMetres(window, bladeId));
    case 'bladeFitted':
      return values(({ bladeId }) => bladeId).flatMap((own) =>
        step(
          ({ bladeId }) => bladeId === own,
          'it began with the blade that was fitted: tip, exposure or its seat',
        ),
      );
    case 'lot':
      return values(({ lot }) => lot)
        .filter(Boolean)
        .flatMap((own) => step(({ lot }) => lot === own, `it began with lot ${own}`));
    case 'sheet':
      return values(({ sheet }) => sheet).flatMap((own) =>
        step(({ sheet }) => sheet === own, `only ${own} shows it`),
      );
    case 'damp':
      return step(
        ({ humidity }) => humidity !== null && humidity >= DAMP,
        'it goes with a damp room: paper and card take water',
      );
    case 'mat':
      return values(({ matId }) => matId)
        .filter((own) => own !== null)
        .flatMap((own) => step(({ matId }) => matId === own, 'it began with the mat that is on now'));
    case 'machine': {
      const first = since[0]?.at ?? '';
      return step(
        ({ at }) => at >= first,
        'everything shifted at once, with nothing else changed: holder, carriage or strip under the blade',
      );
    }
  }
}

function growWithMetres(window: readonly DriftPoint[], own: number | null): readonly Explanation[] {
  const metres = window.filter(({ bladeId }) => bladeId === own).map(({ bladeMetres }) => bladeMetres);
  const [low, high] = [Math.min(...metres), Math.max(...metres)];
  if (!(high - low > LEAST_TRAVEL)) return [];
  return [
    {
      pattern: window.map(({ bladeId, bladeMetres }) =>
        bladeId === own ? (bladeMetres - low) / (high - low) : 0,
      ),
      reason: `the blade has cut ${Math.round(high)} m and has needed more force along the way`,
    },
  ];
}

/** Below this travel a blade has not worn, m. */
const LEAST_TRAVEL = 5;
/** Above this relative humidity card and paper take water that changes how they cut, %. Common practice, no source. */
const DAMP = 60;

/** Log likelihood gained by a shift of this shape with its best height, unit variance, less a half for the height. */
function explainedBy(pattern: readonly number[], window: readonly DriftPoint[], sign: 1 | -1): number {
  const weight = pattern.reduce((sum, one) => sum + one * one, 0);
  const along = pattern.reduce((sum, one, index) => sum + one * sign * itemAt(window, index).residual, 0);
  if (weight === 0 || along <= 0) return -3;
  return (along * along) / weight / 2 - 0.5 * Math.log(window.length);
}
