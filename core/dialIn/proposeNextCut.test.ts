import { expect, it } from 'vitest';
import { HARM_CUTS, proposeNextCut, WORTHWHILE_GAIN } from '#core/dialIn/proposeNextCut.ts';
import { normalCdf } from '#core/threshold/numerics/normal.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';
import { misjudgingMatrix } from '#core/threshold/sheetModel/misjudging.ts';

/** Three beliefs about one layer: grades 0, 1, 2, 7 and 8, of which 7 is wanted and 8 spoils the mat. */
const posterior: ThresholdPosterior = {
  model: 'by hand',
  trialCount: 2,
  grades: [0, 1, 2, 7, 8],
  drawCount: 3,
  boundaries: Float64Array.from([60, 80, 100, 150, 70, 100, 140, 190, 90, 130, 170, 260].map(Math.log)),
  spreads: Float64Array.of(0.05, 0.08, 0.06),
  weights: Float64Array.of(0.5, 0.3, 0.2),
  effectiveDraws: 2.6,
};
const forces = [90, 110, 125, 140, 160, 180, 200, 230];

/** The same by its definition, draw for draw: no table, no sum shared between grades. */
function proposeByDefinition() {
  const draws = [0, 1, 2];
  const shareOf = (draw: number, force: number, grade: number) => {
    const reach = (edge: number) =>
      normalCdf((Math.log(force) - posterior.boundaries[draw * 4 + edge]!) / posterior.spreads[draw]!);
    return (grade === 0 ? 1 : reach(grade - 1)) - (grade === 4 ? 0 : reach(grade));
  };
  const misread = misjudgingMatrix(5);
  const best = (weights: readonly number[]) =>
    Math.max(
      ...forces.map((at) => draws.reduce((sum, draw) => sum + weights[draw]! * shareOf(draw, at, 3), 0)),
    );
  const own = [...posterior.weights];
  return forces.map((force) => {
    const after = [0, 1, 2, 3, 4].reduce((sum, seen) => {
      const weights = draws.map((draw) =>
        [0, 1, 2, 3, 4].reduce(
          (chance, truth) => chance + own[draw]! * shareOf(draw, force, truth) * misread[truth]![seen]!,
          0,
        ),
      );
      return sum + best(weights);
    }, 0);
    const harm = draws.reduce((sum, draw) => sum + own[draw]! * shareOf(draw, force, 4), 0);
    return { force, harm, gain: after - best(own) - HARM_CUTS * WORTHWHILE_GAIN * harm };
  });
}

it('is worth what its definition says, whatever is summed first', () => {
  const expected = proposeByDefinition().reduce((one, other) => (other.gain > one.gain ? other : one));
  const next = proposeNextCut(posterior, 'through', forces);
  expect(next.forceGf).toBe(expected.force);
  expect(next.gain).toBeCloseTo(expected.gain, 5);
  expect(next.harm).toBeCloseTo(expected.harm, 5);
  expect(next.gain).toBeGreaterThan(0.02);
});

it('begins no higher than the best guess, and where little is spoilt', () => {
  const first = proposeNextCut({ ...posterior, trialCount: 0 }, 'through', forces);
  expect(first.forceGf).toBeLessThanOrEqual(first.bestGf);
  expect(first.harm).toBeLessThanOrEqual(0.08);
});

it('spoils less the dearer a spoiled mat is, and minds nothing where it costs nothing', () => {
  // Heavy forces alone: one tells the sheets apart best, and scars the mat every other time.
  const heavy = [140, 170, 200];
  const at = (price: number) => proposeNextCut(posterior, 'through', heavy, price);
  const harms = [0, HARM_CUTS, 10, 50].map((price) => at(price).harm);
  for (const [index, harm] of harms.slice(1).entries()) expect(harm).toBeLessThanOrEqual(harms[index]!);
  expect(harms.at(-1)!).toBeLessThan(harms[0]!);
});
