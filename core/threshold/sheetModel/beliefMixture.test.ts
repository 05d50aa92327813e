import { Matrix, inverse, determinant } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import { seededRandom, drawNormal } from '#core/random/seededRandom.ts';
import { findWindow } from '#core/threshold/findWindow.ts';
import { mixBelief } from '#core/threshold/sheetModel/beliefMixture.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';
import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import type { Trial } from '#core/threshold/trial.ts';

const belief = sheetPrior(
  {
    traits: {
      family: 'cardstock',
      stack: [{ role: 'body', caliperUm: 290, isMeasured: true }],
      darkness: 0,
    },
    materialId: 1,
    machineId: 1,
    condition: 'bare',
    lot: '',
    colour: '',
  },
  null,
);
const size = belief.mean.length;

/** ln of a normal's density, from its covariance, by a library. */
function logNormal(mean: readonly number[], covariance: Matrix, at: readonly number[]): number {
  const off = Matrix.columnVector(at.map((value, j) => value - (mean[j] as number)));
  const square = off.transpose().mmul(inverse(covariance)).mmul(off).get(0, 0);
  return -0.5 * (square + Math.log(determinant(covariance)));
}

describe('a belief with tails', () => {
  it('has the density of its mixture, summed from covariances by another library (1e-8)', () => {
    const whole = inverse(
      new Matrix(
        Array.from({ length: size }, (_, j) => [...belief.precision.slice(j * size, (j + 1) * size)]),
      ),
    );
    const { tail, nearMat } = belief;
    const widen = (far: boolean, near: boolean) => {
      const covariance = whole.clone();
      const add = (j: number, sd: number) => covariance.set(j, j, covariance.get(j, j) + sd ** 2);
      if (far) add(P.threshold, tail!.sd);
      if (near) add(P.mat, nearMat!.sd);
      return covariance;
    };
    const direct = (at: readonly number[]) => {
      let density = 0;
      for (const far of [false, true]) {
        for (const near of [false, true]) {
          const mean = [...belief.mean];
          if (near) mean[P.mat] = (mean[P.mat] as number) - nearMat!.lower;
          const share = (far ? tail!.share : 1 - tail!.share) * (near ? nearMat!.share : 1 - nearMat!.share);
          density += share * Math.exp(logNormal(mean, widen(far, near), at));
        }
      }
      return Math.log(density);
    };
    const { logDensity } = mixBelief(belief);
    const random = seededRandom(3);
    const places = Array.from({ length: 30 }, () =>
      Array.from(belief.mean, (middle, j) => middle + 1.5 * Math.sqrt(whole.get(j, j)) * drawNormal(random)),
    );
    const [first] = places as [number[]];
    for (const at of places) {
      const told = logDensity(Float64Array.from(at)) - logDensity(Float64Array.from(first));
      expect(told).toBeCloseTo(direct(at) - direct(first), 8);
    }
  });

  it('does not swear to a through cut where the mat is scarred at hardly more than parts the sheet', () => {
    const conditions = { passes: 1, speedMmPerS: 100, bladeMetres: 0 };
    const cut = (forceGf: number, grade: Trial['grade']): Trial => ({ ...conditions, forceGf, grade });
    const forces = Array.from({ length: 99 }, (_, index) => 100 + index * 4);
    const best = (trials: readonly Trial[], asked = belief) =>
      findWindow(sheetModel(11).fit({ belief: asked, conditions }, trials), 'through', forces).best.right;
    const narrow = [cut(200, 1), cut(232, 2), cut(248, 8), cut(240, 8), cut(236, 2)];
    // Without, it believes in room further up, where every cut scarred the mat.
    expect(best(narrow, { ...belief, nearMat: undefined })).toBeGreaterThan(0.5);
    expect(best(narrow)).toBeLessThan(0.4);
    // Where there is room, it is found and claimed as before.
    const roomy = [cut(200, 1), cut(232, 2), cut(260, 7), cut(280, 7)];
    expect(best(roomy)).toBeGreaterThan(0.85);
  });
});
