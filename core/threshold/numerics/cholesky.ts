/** A square matrix of side n in row-major order, length n * n. */
export type SquareMatrix = Float64Array;

/**
 * The lower triangle L with L Lᵀ = matrix, or `null` when the matrix is not positive definite.
 *
 * @param matrix symmetric, side `size`; only its lower triangle is read
 * @example choleskyOf(Float64Array.of(4, 2, 2, 5), 2) // [2, 0, 1, 2]
 */
export function choleskyOf(matrix: SquareMatrix, size: number): SquareMatrix | null {
  const lower = new Float64Array(size * size);
  for (let row = 0; row < size; row++) {
    for (let column = 0; column <= row; column++) {
      let sum = at(matrix, row * size + column);
      for (let k = 0; k < column; k++) sum -= at(lower, row * size + k) * at(lower, column * size + k);
      if (row === column) {
        if (!(sum > 0)) return null;
        lower[row * size + row] = Math.sqrt(sum);
      } else {
        lower[row * size + column] = sum / at(lower, column * size + column);
      }
    }
  }
  return lower;
}

/**
 * Solves L Lᵀ x = right-hand side for the triangle of {@link choleskyOf}.
 *
 * @example solveCholesky(choleskyOf(Float64Array.of(4, 0, 0, 9), 2), 2, Float64Array.of(8, 18)) // [2, 2]
 */
export function solveCholesky(lower: SquareMatrix, size: number, rightSide: Float64Array): Float64Array {
  return solveTransposed(lower, size, solveLower(lower, size, rightSide));
}

/**
 * Solves L x = right-hand side.
 *
 * @example solveLower(Float64Array.of(2, 0, 0, 3), 2, Float64Array.of(4, 9)) // [2, 3]
 */
export function solveLower(lower: SquareMatrix, size: number, rightSide: Float64Array): Float64Array {
  const x = new Float64Array(size);
  solveLowerInto(x, lower, rightSide);
  return x;
}

/**
 * The same into a vector that is there: fits do this for every effect of every material.
 *
 * @example ((x) => (solveLowerInto(x, Float64Array.of(2, 0, 0, 3), Float64Array.of(4, 9)), x))(new Float64Array(2)) // [2, 3]
 */
export function solveLowerInto(x: Float64Array, lower: SquareMatrix, rightSide: Float64Array): void {
  const size = x.length;
  for (let row = 0; row < size; row++) {
    x[row] = (at(rightSide, row) - dot(lower, row * size, x, 0, row)) / at(lower, row * size + row);
  }
}

/**
 * The sum of so many products, from a place in each of two vectors.
 *
 * @example dot(Float64Array.of(1, 2, 3), 1, Float64Array.of(4, 5), 0, 2) // 23
 */
export function dot(
  one: Float64Array,
  from: number,
  other: Float64Array,
  place: number,
  count: number,
): number {
  let sum = 0;
  for (let k = 0; k < count; k++) sum += at(one, from + k) * at(other, place + k);
  return sum;
}

/**
 * Solves Lᵀ x = right-hand side. With standard normals on the right, x has covariance (L Lᵀ)⁻¹.
 *
 * @example solveTransposed(Float64Array.of(2, 0, 0, 3), 2, Float64Array.of(4, 9)) // [2, 3]
 */
export function solveTransposed(lower: SquareMatrix, size: number, rightSide: Float64Array): Float64Array {
  const x = Float64Array.from(rightSide);
  for (let row = size - 1; row >= 0; row--) {
    let sum = at(x, row);
    for (let k = row + 1; k < size; k++) sum -= at(lower, k * size + row) * at(x, k);
    x[row] = sum / at(lower, row * size + row);
  }
  return x;
}

/**
 * ln of the determinant of L Lᵀ.
 *
 * @example logDetOf(choleskyOf(Float64Array.of(4), 1), 1) // 1.386
 */
export function logDetOf(lower: SquareMatrix, size: number): number {
  let sum = 0;
  for (let row = 0; row < size; row++) sum += 2 * Math.log(at(lower, row * size + row));
  return sum;
}

/**
 * The inverse of L Lᵀ.
 *
 * @example invertCholesky(choleskyOf(Float64Array.of(4), 1), 1) // [0.25]
 */
export function invertCholesky(lower: SquareMatrix, size: number): SquareMatrix {
  const inverse = new Float64Array(size * size);
  for (let column = 0; column < size; column++) {
    const unit = new Float64Array(size);
    unit[column] = 1;
    const solved = solveCholesky(lower, size, unit);
    for (let row = 0; row < size; row++) inverse[row * size + column] = at(solved, row);
  }
  return inverse;
}

/** A matrix entry known to exist, without a bounds branch in the type. */
function at(values: Float64Array, index: number): number {
  return values[index] as number;
}
