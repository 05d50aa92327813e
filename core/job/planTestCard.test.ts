import { describe, expect, it } from 'vitest';
import { composeCard } from '#core/dialIn/testCard.ts';
import { makeTestPiece } from '#core/dialIn/testPiece.ts';
import { planTestCard } from '#core/job/planTestCard.ts';
import { splitParts } from '#core/passes/splitParts.ts';
import { FIGURES } from '#core/protocol/cardPasses.ts';
import { samplePlanMachine } from '#core/tests/sampleJob.ts';

const values = {
  force: 1,
  exposureMm: 0.3,
  speed: 200,
  passes: 1,
  offsetMm: 0.25,
  overcutMm: 0.4,
  tabForce: 60,
};
const cells = [140, 120, 160].map((force) => ({ force, speed: 200, passes: 2 }));
const card = composeCard(makeTestPiece('square'), cells, { x: 10, y: 20 });
const coupon = composeCard(makeTestPiece('coupon'), cells.slice(0, 1), { x: 10, y: 20 });
const panel = { ...samplePlanMachine, carries: { force: false, speed: false } };
const file = { ...samplePlanMachine, carries: { force: true, speed: true } };

describe('a test card on a machine', () => {
  it('runs straight through where the file carries the force', () => {
    const passes = planTestCard(card, 'kiss', values, file);
    expect(splitParts(passes, file.carries)).toHaveLength(1);
    expect(passes.map((pass) => pass.values.force)).toEqual([140, 120, 160]);
    expect(passes.every((pass) => pass.seconds > 0 && pass.cutMm > 0)).toBe(true);
  });

  it('stops before each force that a hand dials, and says which', () => {
    const parts = splitParts(planTestCard(card, 'kiss', values, panel), panel.carries);
    expect(parts.map(({ before }) => before)).toEqual(
      [140, 120, 160].map((force) => `Dial force ${force} and speed 200 at the panel`),
    );
    // Each cell alone, each line twice; the figures are cut with the gentlest and cost no stop.
    const cellsOf = parts.map(
      ({ passes }) => new Set(passes.flatMap((pass) => pass.strokes.map((s) => s.contourId))),
    );
    expect(cellsOf).toEqual([new Set([0]), new Set([1, FIGURES]), new Set([2])]);
  });

  it('counts its passes, so that the last one can be looked at', () => {
    const [first] = planTestCard(card, 'kiss', values, file);
    expect(first!.strokes.map(({ repeat }) => repeat)).toEqual([0, 0, 1, 1]);
  });

  it('presses along tabs where the file can, and lifts the tool over them where a panel owns the force', () => {
    const pressed = planTestCard(coupon, 'through', values, file);
    expect(pressed.map((pass) => pass.values.force)).toEqual([60, 140]);
    expect(pressed[0]!.strokes.every(({ isTab }) => isTab)).toBe(true);
    const lifted = planTestCard(coupon, 'through', values, panel);
    expect(lifted).toHaveLength(1);
    expect(lifted[0]!.strokes.some(({ isTab }) => isTab)).toBe(false);
    expect(lifted[0]!.strokes.length).toBeGreaterThan(10);
  });
});
