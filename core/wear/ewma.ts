/** How a chart of exponentially weighted means is drawn. */
export interface EwmaOptions {
  /** Weight of the newest value, above 0 to 1. */
  readonly lambda: number;
  /** The mean while nothing changes. */
  readonly target: number;
  /** Standard deviation of single values. */
  readonly sd: number;
  /** Limits lie so many standard deviations of the weighted mean away; 3 is usual. */
  readonly widthSd?: number;
}

/** A chart: the weighted mean after each value, and the limits it should stay between. */
export interface EwmaChart {
  readonly means: readonly number[];
  readonly lower: number;
  readonly upper: number;
}

/**
 * Exponentially weighted moving average with its steady limits.
 *
 * Source: NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.4.
 * @param values in the order in which they came
 * @example ewmaChart([52, 47], { lambda: 0.3, target: 50, sd: 2.0539 }).means // [50.6, 49.52]
 */
export function ewmaChart(
  values: readonly number[],
  { lambda, target, sd, widthSd = 3 }: EwmaOptions,
): EwmaChart {
  let mean = target;
  const means = values.map((value) => (mean = lambda * value + (1 - lambda) * mean));
  const reach = widthSd * sd * Math.sqrt(lambda / (2 - lambda));
  return { means, lower: target - reach, upper: target + reach };
}
