/** How sums of deviations are kept. All in the unit of the values. */
export interface CusumOptions {
  readonly target: number;
  /** What is allowed for each value: half of the shift that is to be found. */
  readonly allowance: number;
  /** A sum beyond it is an alarm. */
  readonly decision: number;
}

/** Sums of what lies above and below the target beyond the allowance, and the first alarm of each. */
export interface CusumChart {
  readonly upper: readonly number[];
  readonly lower: readonly number[];
  /** Index of the first value at which a sum passes the decision, or `null`. */
  readonly firstUpper: number | null;
  readonly firstLower: number | null;
}

/**
 * Tabular cumulative sums, upper and lower, each beginning at 0.
 *
 * Source: NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.3.
 * @param values in the order in which they came
 * @example cusumChart([0, 0, 9], { target: 0, allowance: 0.5, decision: 4 }).firstUpper // 2
 */
export function cusumChart(
  values: readonly number[],
  { target, allowance, decision }: CusumOptions,
): CusumChart {
  let [high, low] = [0, 0];
  const upper = values.map((value) => (high = Math.max(0, value - target - allowance + high)));
  const lower = values.map((value) => (low = Math.max(0, target - allowance - value + low)));
  const first = (sums: readonly number[]) => {
    const index = sums.findIndex((sum) => sum > decision);
    return index === -1 ? null : index;
  };
  return { upper, lower, firstUpper: first(upper), firstLower: first(lower) };
}
