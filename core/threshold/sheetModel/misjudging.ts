/** Share of grades that are read wrongly: four fifths of them one grade off, the rest two. */
export const MISJUDGED_SHARE = 0.05;
/** No grade is read wrongly by more than this. */
const FURTHEST = 2;

/**
 * P(seen grade | true grade) for K ordered grades, row per true grade. What would fall beyond either end stays
 * with the true grade.
 *
 * @example misjudgingMatrix(9).length // 9
 */
export function misjudgingMatrix(gradeCount: number): readonly Float64Array[] {
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
      row[seen] = MISJUDGED_SHARE * share;
      kept -= MISJUDGED_SHARE * share;
    }
    row[truth] = kept;
    return row;
  });
}

/**
 * Turns probabilities of true grades into probabilities of seen ones.
 *
 * @example misjudge(Float64Array.of(1, 0, 0), misjudgingMatrix(3), new Float64Array(3))[0] // 0.975
 */
export function misjudge(
  trueGrades: Float64Array,
  matrix: readonly Float64Array[],
  out: Float64Array,
): Float64Array {
  out.fill(0);
  const last = out.length - 1;
  for (let truth = 0; truth < trueGrades.length; truth++) {
    const row = matrix[truth] as Float64Array;
    const probability = trueGrades[truth] as number;
    const to = Math.min(last, truth + FURTHEST);
    for (let seen = Math.max(0, truth - FURTHEST); seen <= to; seen++) {
      out[seen] = (out[seen] as number) + probability * (row[seen] as number);
    }
  }
  return out;
}
