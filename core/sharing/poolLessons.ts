/** What one workshop's cuts say of an effect, without what it believed before: a middle and its variance. */
export interface Saying {
  readonly mean: number;
  readonly variance: number;
}

/** An effect that differs between workshops: its middle over all of them, and how far one lies from it. */
export interface PooledEffect {
  readonly mean: number;
  /** Variance of that middle. */
  readonly variance: number;
  /** Variance between workshops. */
  readonly between: number;
}

/**
 * How much an effect differs between workshops, from what each says of it: the method of moments.
 *
 * @returns variance, 0 when they differ no more than chance has it, and for fewer than two
 * Source: DerSimonian and Laird 1986, Meta-analysis in clinical trials, Controlled Clinical Trials 7, 177–188.
 * @example varianceBetween([{ mean: 0, variance: 0.01 }, { mean: 1, variance: 0.01 }]) // 0.49
 */
export function varianceBetween(sayings: readonly Saying[]): number {
  if (sayings.length < 2) return 0;
  const weights = sayings.map(({ variance }) => 1 / variance);
  const sum = weights.reduce((all, weight) => all + weight, 0);
  const squares = weights.reduce((all, weight) => all + weight ** 2, 0);
  const { mean } = poolSayings(sayings, 0);
  const q = sayings.reduce(
    (all, saying, place) => all + (saying.mean - mean) ** 2 * (weights[place] as number),
    0,
  );
  return Math.max(0, (q - (sayings.length - 1)) / (sum - squares / sum));
}

/**
 * The middle of an effect over workshops, weighed by how well each knows it and by how much they differ.
 *
 * @throws Error for no saying
 * @example poolSayings([{ mean: 0, variance: 0.01 }, { mean: 1, variance: 0.01 }], 0.49).mean // 0.5
 */
export function poolSayings(sayings: readonly Saying[], between: number): PooledEffect {
  const weights = sayings.map(({ variance }) => 1 / (variance + between));
  const sum = weights.reduce((all, weight) => all + weight, 0);
  if (!(sum > 0)) throw new Error('there is nothing to pool');
  const mean =
    sayings.reduce((all, saying, place) => all + saying.mean * (weights[place] as number), 0) / sum;
  return { mean, variance: 1 / sum, between };
}

/** A belief before any cut. */
interface Normal {
  readonly mean: number;
  readonly sd: number;
}

/** Before anybody has told anything, half of what is unknown of an effect is taken to be that workshops differ. */
const SHARE_BETWEEN = 0.5;
/** And that is worth as much as so many workshops. */
const BETWEEN_WORTH = 4;
/** At least so much of what is unknown is about the middle, lest the common belief outweigh what many tell. */
const LEAST_OPEN = 0.05;

/**
 * What to believe of an effect in one more workshop, from the common belief and from what others say: never surer than
 * workshops are alike.
 *
 * @example believeFromOthers({ mean: 0, sd: 0.2 }, []).sd // 0.2
 */
export function believeFromOthers(common: Normal, sayings: readonly Saying[]): Normal {
  if (sayings.length === 0) return common;
  const whole = common.sd ** 2;
  const seen = sayings.length - 1;
  const mixed =
    (BETWEEN_WORTH * SHARE_BETWEEN * whole + seen * varianceBetween(sayings)) / (BETWEEN_WORTH + seen);
  // How much they differ is itself only estimated, the fewer the worse.
  const freedom = BETWEEN_WORTH + seen;
  const between = Math.min(whole, (mixed * (freedom + 3)) / freedom);
  const pooled = poolSayings(sayings, between);
  // What the common belief leaves open of the middle itself; where workshops differ by all of it, it says nothing of it.
  const open = Math.max(whole - between, whole * LEAST_OPEN);
  const precision = 1 / open + 1 / pooled.variance;
  const mean = (common.mean / open + pooled.mean / pooled.variance) / precision;
  return { mean, sd: Math.sqrt(Math.min(whole, 1 / precision + between)) };
}
