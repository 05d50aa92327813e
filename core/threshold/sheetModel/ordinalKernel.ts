import { gradeIntervals } from '#core/threshold/sheetModel/gradeIntervals.ts';
import type { Link } from '#core/threshold/numerics/link.ts';

/** Probabilities below this are counted as this, so that one impossible grade cannot end a fit. */
export const PROBABILITY_FLOOR = 1e-300;

/** An edge whose density is below this moves no chance that counts. */
const SILENT = 1e-12;
/** A grade less likely than this adds nothing to the expected information. */
const NEGLIGIBLE = 1e-14;

/**
 * What one seen grade says about the K - 1 standardised edges of an ordinal model. The buffers belong to the kernel
 * and are overwritten by the next call: fits ask this millions of times.
 */
export interface OrdinalKernel {
  /** ln P(a grade from `seen` to `last` was seen); one grade alone when `last` is left out. */
  readonly logChance: (indexes: Float64Array, seen: number, last?: number) => number;
  /** The same, and leaves gradient and expected information by the edges in {@link edgeScore}, {@link edgeInformation}. */
  readonly observe: (indexes: Float64Array, seen: number, last?: number) => number;
  /** d ln P(seen) / d index, length K - 1. */
  readonly edgeScore: Float64Array;
  /** Fisher information of one observation, (K - 1) x (K - 1), row-major, symmetric. */
  readonly edgeInformation: Float64Array;
}

/**
 * Makes the kernel of an ordinal model with K grades: every fit of ours, of a sheet, of a whole book or of published
 * data, is a map from parameters to edges in front of it.
 *
 * @param misjudging P(seen | true), row per true grade, or `null` when grades are read without error
 * @example makeOrdinalKernel(PROBIT, 2, null).logChance(Float64Array.of(0), 1) // -0.693
 */
export function makeOrdinalKernel(
  link: Link,
  gradeCount: number,
  misjudging: readonly Float64Array[] | null,
): OrdinalKernel {
  const edges = gradeCount - 1;
  const truth = new Float64Array(gradeCount);
  const edgeScore = new Float64Array(edges);
  const edgeInformation = new Float64Array(edges * edges);
  const densities = new Float64Array(edges);
  const { moves, columns } = tabulateReadings(misjudging, gradeCount);

  const chanceOf = (seen: number): number => {
    const column = columns[seen] as Float64Array;
    let sum = 0;
    for (let grade = 0; grade < gradeCount; grade++) {
      sum += (column[grade] as number) * (truth[grade] as number);
    }
    return sum;
  };

  const chanceOfRange = (seen: number, last: number): number => {
    let sum = 0;
    for (let grade = seen; grade <= last; grade++) sum += chanceOf(grade);
    return Math.max(sum, PROBABILITY_FLOOR);
  };

  const logChance = (indexes: Float64Array, seen: number, last = seen): number => {
    gradeIntervals(link, indexes, truth);
    return Math.log(chanceOfRange(seen, last));
  };

  const room: Room = {
    densities,
    near: new Int32Array(edges),
    change: new Float64Array(edges),
    edgeInformation,
  };

  const observe = (indexes: Float64Array, seen: number, last = seen): number => {
    gradeIntervals(link, indexes, truth);
    const count = findNear(link, indexes, room);
    edgeInformation.fill(0);
    for (let grade = 0; grade < gradeCount; grade++) {
      const isMoved = findChange(moves[grade] as Float64Array, count, room);
      const chance = isMoved ? chanceOf(grade) : 0;
      if (chance > NEGLIGIBLE) addOuter(chance, count, room);
    }
    const seenChance = chanceOfRange(seen, last);
    edgeScore.fill(0);
    for (let grade = seen; grade <= last; grade++) {
      const move = moves[grade] as Float64Array;
      for (let edge = 0; edge < edges; edge++) {
        edgeScore[edge] =
          (edgeScore[edge] as number) + ((move[edge] as number) * (densities[edge] as number)) / seenChance;
      }
    }
    return Math.log(seenChance);
  };
  return { logChance, observe, edgeScore, edgeInformation };
}

/** Per seen grade, how its chance moves with each edge but for the density there, and P(seen | true) by true grade. */
function tabulateReadings(misjudging: readonly Float64Array[] | null, gradeCount: number) {
  // Lowering a boundary moves chance from the grade below it to the grade above.
  const moves = Array.from({ length: gradeCount }, (_, seen) =>
    Float64Array.from(
      { length: gradeCount - 1 },
      (_, edge) => readAs(misjudging, edge + 1, seen) - readAs(misjudging, edge, seen),
    ),
  );
  const columns = moves.map((_, seen) =>
    Float64Array.from({ length: gradeCount }, (_, grade) => readAs(misjudging, grade, seen)),
  );
  return { moves, columns };
}

function readAs(misjudging: readonly Float64Array[] | null, truth: number, seen: number): number {
  if (misjudging === null) return truth === seen ? 1 : 0;
  return (misjudging[truth] as Float64Array)[seen] as number;
}

/** Space for one trial. Far from an edge nothing moves with it: most trials are near two of eight. */
interface Room {
  readonly densities: Float64Array;
  /** Edges that are felt, the first so many of it. */
  readonly near: Int32Array;
  /** How the chance of one grade moves with each of them. */
  readonly change: Float64Array;
  readonly edgeInformation: Float64Array;
}

/** Fills densities and the edges whose density is felt; how many they are. */
function findNear(link: Link, indexes: Float64Array, { densities, near }: Room): number {
  let count = 0;
  for (let edge = 0; edge < indexes.length; edge++) {
    const density = link.pdf(indexes[edge] as number);
    densities[edge] = density;
    if (density > SILENT) near[count++] = edge;
  }
  return count;
}

/** Fills how a grade's chance moves with the edges near; whether it does. */
function findChange(move: Float64Array, count: number, { densities, near, change }: Room): boolean {
  let isMoved = false;
  for (let i = 0; i < count; i++) {
    const edge = near[i] as number;
    change[i] = (move[edge] as number) * (densities[edge] as number);
    if (change[i] !== 0) isMoved = true;
  }
  return isMoved;
}

/** Adds d dᵀ / chance for the change d of one grade. */
function addOuter(chance: number, count: number, { near, change, edgeInformation, densities }: Room): void {
  for (let i = 0; i < count; i++) {
    const row = (near[i] as number) * densities.length;
    const left = (change[i] as number) / chance;
    for (let j = 0; j < count; j++) {
      const index = row + (near[j] as number);
      edgeInformation[index] = (edgeInformation[index] as number) + left * (change[j] as number);
    }
  }
}
