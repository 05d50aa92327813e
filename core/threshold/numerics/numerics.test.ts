import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawNormal, seededRandom } from '#core/random/seededRandom.ts';
import {
  choleskyOf,
  invertCholesky,
  solveCholesky,
  solveTransposed,
} from '#core/threshold/numerics/cholesky.ts';
import { FAST_PROBIT } from '#core/threshold/numerics/fastProbit.ts';
import { gradeIntervals } from '#core/threshold/sheetModel/gradeIntervals.ts';
import { misjudge, misjudgingMatrix } from '#core/threshold/sheetModel/misjudging.ts';
import { normalCdf } from '#core/threshold/numerics/normal.ts';
import { logPrior } from '#core/threshold/numerics/normalPrior.ts';
import { tabledCdf } from '#core/threshold/numerics/tabledNormal.ts';
import { makeProposal } from '#core/threshold/sheetModel/proposal.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';
import { chooseAxis, spreadForces } from '#core/threshold/spreadForces.ts';
import type { SheetTraits } from '#core/threshold/trial.ts';
import { weightedQuantiles } from '#core/threshold/numerics/weightedQuantiles.ts';

/** A random symmetric positive definite matrix: A Aᵀ + I. */
function randomMatrix(size: number, seed: number): Float64Array {
  const random = seededRandom(seed);
  const a = Array.from({ length: size * size }, () => drawNormal(random));
  return Float64Array.from({ length: size * size }, (_, index) => {
    const [row, column] = [Math.floor(index / size), index % size];
    let sum = row === column ? 1 : 0;
    for (let k = 0; k < size; k++) sum += (a[row * size + k] as number) * (a[column * size + k] as number);
    return sum;
  });
}

function multiply(a: Float64Array, b: Float64Array, size: number): Float64Array {
  return Float64Array.from({ length: size * size }, (_, index) => {
    const [row, column] = [Math.floor(index / size), index % size];
    let sum = 0;
    for (let k = 0; k < size; k++) sum += (a[row * size + k] as number) * (b[k * size + column] as number);
    return sum;
  });
}

describe('Cholesky', () => {
  it('gives back the matrix as L Lᵀ, and its inverse as one (1e-9, sizes 1 to 12)', () => {
    for (let size = 1; size <= 12; size++) {
      const matrix = randomMatrix(size, size);
      const lower = choleskyOf(matrix, size)!;
      const upper = Float64Array.from(
        lower,
        (_, index) => lower[(index % size) * size + Math.floor(index / size)]!,
      );
      multiply(lower, upper, size).forEach((value, index) => expect(value).toBeCloseTo(matrix[index]!, 9));
      multiply(matrix, invertCholesky(lower, size), size).forEach((value, index) =>
        expect(value).toBeCloseTo(index % (size + 1) === 0 ? 1 : 0, 8),
      );
    }
  });

  it('solves what was multiplied, and refuses what is not positive definite', () => {
    const size = 7;
    const matrix = randomMatrix(size, 99);
    const x = Float64Array.from({ length: size }, (_, index) => index - 3);
    const right = Float64Array.from({ length: size }, (_, row) =>
      x.reduce((sum, value, column) => sum + value * matrix[row * size + column]!, 0),
    );
    solveCholesky(choleskyOf(matrix, size)!, size, right).forEach((value, index) =>
      expect(value).toBeCloseTo(x[index]!, 9),
    );
    expect(choleskyOf(Float64Array.of(1, 2, 2, 1), 2)).toBeNull();
    expect(choleskyOf(Float64Array.of(Number.NaN), 1)).toBeNull();
  });

  it('turns standard normals into draws of the inverse covariance (4 % of 20,000 draws)', () => {
    const size = 2;
    const lower = choleskyOf(Float64Array.of(4, 1, 1, 2), size)!;
    const random = seededRandom(5);
    let [xx, xy, yy] = [0, 0, 0];
    for (let draw = 0; draw < 20_000; draw++) {
      const [x, y] = solveTransposed(lower, size, Float64Array.of(drawNormal(random), drawNormal(random)));
      xx += (x! * x!) / 20_000;
      xy += (x! * y!) / 20_000;
      yy += (y! * y!) / 20_000;
    }
    // The inverse of [[4, 1], [1, 2]] is [[2, -1], [-1, 4]] / 7.
    expect(xx).toBeCloseTo(2 / 7, 1);
    expect(Math.abs(xy + 1 / 7)).toBeLessThan(0.02);
    expect(Math.abs(yy - 4 / 7)).toBeLessThan(0.04 * (4 / 7));
  });
});

describe('the fast normal distribution', () => {
  it('agrees with the exact one from the far tail to the far tail (1e-9 relative)', () => {
    for (let x = -14; x <= 14; x += 0.037) {
      const exact = normalCdf(x);
      expect(Math.abs(FAST_PROBIT.cdf(x) - exact)).toBeLessThanOrEqual(1e-9 * exact + 1e-15);
    }
  });

  it('has the quantiles of every table: 1.644854, 1.959964, 2.575829 (Abramowitz and Stegun, table 26.5)', () => {
    expect(FAST_PROBIT.cdf(1.644854)).toBeCloseTo(0.95, 6);
    expect(FAST_PROBIT.cdf(1.959964)).toBeCloseTo(0.975, 6);
    expect(FAST_PROBIT.cdf(-2.575829)).toBeCloseTo(0.005, 6);
  });
});

describe('the table for predictions', () => {
  it('is within 5e-7 of the exact one and never falls', () => {
    let before = 0;
    for (let x = -9; x <= 9; x += 0.00137) {
      const value = tabledCdf(x);
      expect(Math.abs(value - normalCdf(x))).toBeLessThan(5e-7);
      expect(value).toBeGreaterThanOrEqual(before);
      before = value;
    }
  });
});

describe('a proposal', () => {
  it('says of its own draws what it says of any point, and spreads as its information says', () => {
    const peak = Float64Array.of(2, -1);
    const information = Float64Array.of(4, 1, 1, 2);
    const proposal = makeProposal(peak, information, 1.6);
    const random = seededRandom(5);
    const out = new Float64Array(2);
    let square = 0;
    for (let draw = 0; draw < 20_000; draw++) {
      const density = proposal.draw(random, out);
      expect(Math.abs(proposal.logDensity(out) - density)).toBeLessThan(1e-9);
      square += -2 * logPrior({ mean: peak, precision: information }, out);
    }
    // A t of 10 degrees has 10 / 8 of the normal's variance; two parameters, widened by 1.6 (standard error 1 %).
    expect(Math.abs(square / 20_000 / (2 * 1.6 ** 2 * 1.25) - 1)).toBeLessThan(0.03);
  });
});

describe('grades', () => {
  const ascending = fc
    .array(fc.double({ min: -9, max: 9, noNaN: true }), { minLength: 8, maxLength: 8 })
    .map((edges) => Float64Array.from(edges.sort((a, b) => b - a)));

  it('share out one whole, none below zero, for any edges', () => {
    fc.assert(
      fc.property(ascending, (indexes) => {
        const shares = gradeIntervals(FAST_PROBIT, indexes, new Float64Array(9));
        expect(shares.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9);
        expect(Math.min(...shares)).toBeGreaterThanOrEqual(0);
      }),
      { seed: 8 },
    );
  });

  it('are misread without losing any, one in twenty by one or two, one in fifty as any grade', () => {
    for (const count of [5, 9]) {
      const matrix = misjudgingMatrix(count);
      matrix.forEach((row, truth) => {
        expect(row.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 12);
        expect(row[truth]).toBeGreaterThanOrEqual(0.93);
        row.forEach(
          (share, seen) => Math.abs(seen - truth) > 2 && expect(share).toBeCloseTo(0.02 / count, 12),
        );
      });
      const even = new Float64Array(count).fill(1 / count);
      expect(misjudge(even, matrix, new Float64Array(count)).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12);
    }
  });
});

describe('weightedQuantiles', () => {
  it('with equal weights is the sorted value at that share, for any values', () => {
    const values = fc.array(fc.double({ min: -100, max: 100, noNaN: true }), { minLength: 1, maxLength: 60 });
    fc.assert(
      fc.property(values, fc.double({ min: 0.01, max: 1, noNaN: true }), (list, share) => {
        const weights = list.map(() => 1 / list.length);
        const sorted = [...list].sort((a, b) => a - b);
        const place = Math.min(list.length, Math.max(1, Math.ceil(share * list.length - 1e-9)));
        expect(weightedQuantiles(list, weights, [share])).toEqual([sorted[place - 1]]);
      }),
      { seed: 10 },
    );
  });
});

describe('the axis of an answer', () => {
  const sheet: SheetTraits = {
    family: 'printableVinyl',
    stack: [
      { role: 'face', caliperUm: 80, isMeasured: true },
      { role: 'liner', caliperUm: 140, isMeasured: true },
    ],
    darkness: 0,
  };
  const place = { traits: sheet, materialId: 1, machineId: 1, condition: 'bare', lot: '', colour: '' };
  const posterior = sheetModel(4).fit(
    { belief: sheetPrior(place, null), conditions: { passes: 1, speedMmPerS: 100, bladeMetres: 0 } },
    [],
  );
  const scale = { kind: 'gramForce', min: 10, max: 500, step: 1, gfAtZero: 0, gfPerUnit: 1 } as const;

  it('holds every force that must be seen, inside the machine, and thins out only what no cut could tell apart', () => {
    const axis = chooseAxis(posterior, 5, [30, 420], scale);
    expect(axis.fromGf).toBeLessThanOrEqual(30);
    expect(axis.toGf).toBeGreaterThanOrEqual(420);
    expect(axis.toGf).toBeLessThanOrEqual(500);
    const forces = spreadForces(axis, scale);
    forces.slice(1).forEach((force, index) => {
      expect(force).toBeGreaterThan(forces[index]!);
      expect(force / forces[index]!).toBeGreaterThanOrEqual(1.008);
      expect(force / forces[index]!).toBeLessThan(1.12);
    });
  });
});
