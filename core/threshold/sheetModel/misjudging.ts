/** Share of grades that are read a little wrongly: four fifths of them one grade off, the rest two. */
export const MISJUDGED_SHARE = 0.05;
/** No such slip goes further than this. */
const FURTHEST = 2;
/**
 * Share of grades that say nothing: another cell was looked at, a key was hit. They may be any grade. Without them one
 * such grade is believed against everything else.
 */
const LOST_SHARE = 0.02;

/**
 * How carelessly people read, against what is usual: up to so carelessly that nearly one grade in three is wrong. The
 * careless grade another cell more often than they look a grade beside. Nobody is believed more careful than usual: a
 * fit has bent towards the grades that it is asked about.
 */
export const CARELESSNESS = [1, 2, 3, 4.5] as const;

/** Shares of grades that are read a little wrongly, and that say nothing. */
function sharesOf(carelessness: number): { readonly misjudged: number; readonly lost: number } {
  return { misjudged: MISJUDGED_SHARE * carelessness ** 0.5, lost: LOST_SHARE * carelessness ** 1.5 };
}

/**
 * P(seen grade | true grade) for K ordered grades, row per true grade. What would fall beyond either end stays
 * with the true grade.
 *
 * @param carelessness of whoever reads, 1 for what is usual
 * @example misjudgingMatrix(9).length // 9
 */
export function misjudgingMatrix(gradeCount: number, carelessness = 1): readonly Float64Array[] {
  const { misjudged, lost } = sharesOf(carelessness);
  return Array.from({ length: gradeCount }, (_, truth) => {
    const row = new Float64Array(gradeCount);
    let kept = 1;
    for (const [offset, share] of [
      [-1, 0.4],
      [1, 0.4],
      [-2, 0.1],
      [2, 0.1],
    ] as const) {
      const seen = truth + offset;
      if (seen < 0 || seen >= gradeCount) continue;
      row[seen] = misjudged * share;
      kept -= misjudged * share;
    }
    row[truth] = kept;
    return row.map((share) => (1 - lost) * share + lost / gradeCount);
  });
}

/**
 * Turns probabilities of true grades, which sum to 1, into probabilities of seen ones.
 *
 * @example misjudge(Float64Array.of(1, 0, 0), misjudgingMatrix(3), new Float64Array(3))[0] // 0.962
 */
export function misjudge(
  trueGrades: Float64Array,
  matrix: readonly Float64Array[],
  out: Float64Array,
): Float64Array {
  const count = out.length;
  out.fill(LOST_SHARE / count);
  const last = count - 1;
  for (let truth = 0; truth < count; truth++) {
    const row = matrix[truth] as Float64Array;
    const probability = trueGrades[truth] as number;
    const to = Math.min(last, truth + FURTHEST);
    for (let seen = Math.max(0, truth - FURTHEST); seen <= to; seen++) {
      out[seen] = (out[seen] as number) + probability * ((row[seen] as number) - LOST_SHARE / count);
    }
  }
  return out;
}

/**
 * The place in {@link CARELESSNESS} that is nearest to a carelessness, by its ln.
 *
 * @example nearestReading(1.9) // 1
 */
export function nearestReading(carelessness: number): number {
  const apart = (one: number) => Math.abs(Math.log(one / carelessness));
  return CARELESSNESS.reduce(
    (best, one, place) => (apart(one) < apart(CARELESSNESS[best] as number) ? place : best),
    0,
  );
}
