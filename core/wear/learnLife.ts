/** What is believed of how long a kind of tool lasts, in whatever it is worn by. */
export interface Life {
  /** Nine in ten last longer, half do, one in ten does. */
  readonly low: number;
  readonly middle: number;
  readonly high: number;
  /** Changes it was learnt from. */
  readonly changes: number;
}

/** Natural logarithm: spread between tools of a kind, and of what is said of a kind's life. Common practice, no source. */
const BETWEEN = 0.3;
const SAID = 0.25;
const NORMAL_90 = 1.2816;

/**
 * How long a kind of tool lasts here: what is said of it, moved by when its like were given up. Lives are log-normal;
 * what is said counts as one observation with a spread of its own.
 *
 * @param said the life that is said of the kind, above 0
 * @param givenUpAt wear at each change; what is 0 or less says nothing
 * @example learnLife(360, []).middle // 360
 */
export function learnLife(said: number, givenUpAt: readonly number[]): Life {
  const seen = givenUpAt.filter((wear) => wear > 0).map(Math.log);
  const precision = 1 / SAID ** 2 + seen.length / BETWEEN ** 2;
  const mean =
    (Math.log(said) / SAID ** 2 + seen.reduce((sum, one) => sum + one, 0) / BETWEEN ** 2) / precision;
  const spread = Math.sqrt(BETWEEN ** 2 + 1 / precision);
  const at = (share: number) => Math.exp(mean + share * NORMAL_90 * spread);
  return { low: at(-1), middle: at(0), high: at(1), changes: seen.length };
}
