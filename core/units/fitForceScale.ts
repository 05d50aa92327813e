import { itemAt } from '#core/collections/itemAt.ts';
import { AppError } from '#core/errors/appError.ts';
import { drawNormal, seededRandom } from '#core/random/seededRandom.ts';
import type { ForceScale, ScalePoint, ScaleValue } from '#core/units/forceScale.ts';

/** What a kitchen balance under the tip showed at one value of the scale. */
export interface ScaleReading {
  readonly force: ScaleValue;
  readonly grams: number;
}

/** A scale measured: gf at knots with the range that 9 of 10 such measurements would leave. */
export interface FittedScale {
  readonly points: readonly (ScalePoint & { readonly lowGf: number; readonly highGf: number })[];
  /** Standard deviation of one reading around the fit, g. */
  readonly noiseG: number;
}

const LEAST_VALUES = 3;
/** No small cutter presses harder. */
const MOST_GRAMS = 3000;
/** A balance under a tip is not read better than this: grams, and share of the reading. */
const READING_FLOOR = { grams: 1, share: 0.01 } as const;
const REFITS = 200;
const KNOTS = 24;
/** The least rise from knot to knot, share of the whole: a scale that does not rise cannot be turned around. */
const LEAST_RISE = 1e-4;
/** A scale never falls, nor stands quite still: g a step at least. */
const LEAST_SLOPE = 1e-6;

/**
 * Fits a force scale to readings: rising everywhere (isotonic regression by pooling adjacent violators, then straight
 * between the pooled means), on a straight line beyond them. The band is a parametric bootstrap.
 *
 * @param readings in any order; repeats at one value tell the noise
 * @throws AppError `badInput` for readings no machine gives: too few, outside the scale, not above 0, or falling by
 *   more than the noise explains
 * @example fitForceScale([{ force: 10, grams: 12 }, { force: 200, grams: 205 }, { force: 500, grams: 490 }], gramScale).points.length > 2 // true
 */
export function fitForceScale(readings: readonly ScaleReading[], scale: ForceScale): FittedScale {
  requireReadable(readings, scale);
  const noiseG = estimateNoise(readings);
  requireRising(readings);
  const values = knotsOf(scale);
  const fit = fitCurve(readings, values);
  const random = seededRandom(readings.length * 7919);
  const refits = Array.from({ length: REFITS }, () =>
    fitCurve(
      readings.map(({ force, grams }) => ({
        force,
        grams: grams + noiseAt(grams, noiseG) * drawNormal(random),
      })),
      values,
    ),
  );
  return {
    noiseG,
    points: values.map((force, knot) => {
      const seen = refits.map((one) => itemAt(one, knot)).sort((a, b) => a - b);
      const gf = itemAt(fit, knot);
      const at = (share: number) => itemAt(seen, Math.round(share * (REFITS - 1)));
      return { force, gf, lowGf: Math.min(gf, at(0.05)), highGf: Math.max(gf, at(0.95)) };
    }),
  };
}

function requireReadable(readings: readonly ScaleReading[], { min, max }: ForceScale): void {
  for (const { force, grams } of readings) {
    if (!(force >= min && force <= max))
      refuse(`${force} is not on this scale, which goes from ${min} to ${max}`);
    if (!(grams > 0)) refuse(`at ${force} the balance read ${grams} g: a pressing tip reads above 0`);
    if (grams > MOST_GRAMS) refuse(`${grams} g at ${force} is more than any small cutter presses`);
  }
  const distinct = new Set(readings.map(({ force }) => force)).size;
  if (distinct < LEAST_VALUES) {
    refuse(`readings at ${distinct} values are too few: at least ${LEAST_VALUES}, far apart`);
  }
}

/**
 * Only repeats excuse a fall: taken from the readings as a whole, the noise would be as large as the odd reading makes it.
 */
function requireRising(readings: readonly ScaleReading[]): void {
  const means = meansByForce(readings);
  const noiseG = noiseOfRepeats(readings, means) ?? READING_FLOOR.grams;
  means.forEach((here, index) => {
    const next = means[index + 1];
    if (!next) return;
    const fall = here.grams - next.grams;
    if (fall > 3 * noiseAt(here.grams, noiseG)) {
      refuse(
        `${next.force} read ${next.grams.toFixed(0)} g, less than ${here.force} with ${here.grams.toFixed(0)} g: read both again`,
      );
    }
  });
  const [first, last] = [itemAt(means, 0), means.at(-1) as Mean];
  if (last.grams <= first.grams) refuse('the scale does not rise from its lowest to its highest reading');
}

interface Mean {
  readonly force: ScaleValue;
  readonly grams: number;
  readonly count: number;
}

function meansByForce(readings: readonly ScaleReading[]): readonly Mean[] {
  const forces = [...new Set(readings.map(({ force }) => force))];
  return forces
    .map((force) => {
      const group = readings.filter((one) => one.force === force);
      const grams = group.reduce((sum, one) => sum + one.grams, 0) / group.length;
      return { force, grams, count: group.length };
    })
    .sort((a, b) => a.force - b.force);
}

/** From repeats at one value where there are any; else from the straight line through all. Never below the floor. */
function estimateNoise(readings: readonly ScaleReading[]): number {
  const means = meansByForce(readings);
  const repeated = noiseOfRepeats(readings, means);
  if (repeated !== null) return repeated;
  const line = fitLine(means);
  const around = means.map(({ force, grams }) => grams - line.at(force));
  return Math.max(READING_FLOOR.grams, Math.sqrt(sumSquares(around) / Math.max(1, means.length - 2)) / 2);
}

function noiseOfRepeats(readings: readonly ScaleReading[], means: readonly Mean[]): number | null {
  const freedom = readings.length - means.length;
  if (freedom === 0) return null;
  const within = readings.map(
    ({ force, grams }) => grams - (means.find((one) => one.force === force) as Mean).grams,
  );
  return Math.max(READING_FLOOR.grams, Math.sqrt(sumSquares(within) / freedom));
}

function noiseAt(grams: number, noiseG: number): number {
  return Math.hypot(noiseG, READING_FLOOR.share * grams);
}

function fitCurve(readings: readonly ScaleReading[], values: readonly ScaleValue[]): readonly number[] {
  const means = meansByForce(readings);
  const pooled = poolViolators(means);
  const line = fitLine(means);
  const slope = Math.max(line.slope, LEAST_SLOPE);
  const [first, last] = [itemAt(pooled, 0), pooled.at(-1) as Mean];
  const curve = values.map((force) => {
    if (force <= first.force) return first.grams - slope * (first.force - force);
    if (force >= last.force) return last.grams + slope * (force - last.force);
    const end = pooled.findIndex((one) => one.force >= force);
    const [from, to] = [itemAt(pooled, end - 1), itemAt(pooled, end)];
    return from.grams + ((force - from.force) * (to.grams - from.grams)) / (to.force - from.force);
  });
  return keepRising(curve);
}

/** Pool adjacent violators: the nearest rising sequence in least squares. Blocks stand at their middle value. */
function poolViolators(means: readonly Mean[]): readonly Mean[] {
  const blocks: Mean[] = [];
  for (const mean of means) {
    let block = mean;
    for (let before = blocks.at(-1); before && before.grams >= block.grams; before = blocks.at(-1)) {
      const count = before.count + block.count;
      block = {
        force: (before.force * before.count + block.force * block.count) / count,
        grams: (before.grams * before.count + block.grams * block.count) / count,
        count,
      };
      blocks.pop();
    }
    blocks.push(block);
  }
  return blocks;
}

function keepRising(curve: readonly number[]): readonly number[] {
  const rise = Math.max(LEAST_SLOPE, ((curve.at(-1) as number) - itemAt(curve, 0)) * LEAST_RISE);
  let last = 0;
  return curve.map((gf) => {
    last = Math.max(gf, last + rise);
    return Number(last.toFixed(3));
  });
}

function fitLine(means: readonly Mean[]): { readonly slope: number; at(force: ScaleValue): number } {
  const total = means.reduce((sum, { count }) => sum + count, 0);
  const middle = means.reduce((sum, { force, count }) => sum + force * count, 0) / total;
  const level = means.reduce((sum, { grams, count }) => sum + grams * count, 0) / total;
  const spread = means.reduce((sum, { force, count }) => sum + count * (force - middle) ** 2, 0);
  const joint = means.reduce(
    (sum, { force, grams, count }) => sum + count * (force - middle) * (grams - level),
    0,
  );
  const slope = joint / spread;
  return { slope, at: (force) => level + slope * (force - middle) };
}

function knotsOf({ min, max }: ForceScale): readonly ScaleValue[] {
  return Array.from({ length: KNOTS + 1 }, (_, knot) =>
    Number((min + ((max - min) * knot) / KNOTS).toFixed(4)),
  );
}

function sumSquares(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value * value, 0);
}

function refuse(message: string): never {
  throw new AppError('badInput', message);
}
