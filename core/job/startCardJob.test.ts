import { startOf } from '#core/geometry/contour.ts';
import { describe, expect, it } from 'vitest';
import { layOutJob } from '#core/job/layOutJob.ts';
import { placeCard, startCardJob } from '#core/job/startCardJob.ts';
import { fileOptionsOf, writeMachineFile } from '#core/protocol/machineFile.ts';
import { samplePlan, samplePlanMachine } from '#core/tests/sampleJob.ts';

const marks = { scheme: 'fourCorners', lengthMm: 18, thicknessMm: 0.8, insetMm: 12 } as const;
const machine = { name: 'Plover', marks, marginMm: 10, printAndCut: [] };

describe('a card for print and cut', () => {
  const job = startCardJob(machine, true);
  const laid = layOutJob(job, machine);
  const [placed] = laid.sheets;

  it('lies where it was drawn, inside the sheet, with marks', () => {
    expect(placed!.isInside).toBe(true);
    expect(laid.marks).toHaveLength(4);
    const zero = placeCard(machine).verniers[0]!.at;
    const cut = placed!.lines.filter(({ layer }) => layer === 'kiss');
    const near = cut.filter(({ contour }) => Math.abs(startOf(contour).x - zero.x) < 1e-6);
    expect(near.some(({ contour }) => Math.abs(startOf(contour).y - zero.y) < 1e-6)).toBe(true);
  });

  it('kisses on a liner and cuts through a single layer', () => {
    expect(Object.values(job.roles).toSorted()).toEqual(['art', 'kiss']);
    expect(Object.values(startCardJob(machine, false).roles)).toContain('through');
  });

  it('is refused for a machine without marks, and for marks that leave no room', () => {
    expect(() => startCardJob({ ...machine, marks: { ...marks, scheme: 'none' } }, true)).toThrow(
      /no registration/,
    );
    expect(() => startCardJob({ ...machine, marks: { ...marks, insetMm: 40 } }, true)).toThrow(
      /free of marks/,
    );
  });
});

describe('the place of a sheet', () => {
  it('moves every point by where the sheet lies on its mat and by what is corrected', () => {
    const lines = layOutJob(startCardJob(machine, true), machine).sheets[0]!.lines.filter(
      ({ layer }) => layer === 'kiss',
    );
    const values = { force: 60, exposureMm: 0.4, speed: 100, passes: 1, offsetMm: 0.25, overcutMm: 0 };
    const plan = samplePlan(lines.slice(0, 1), { 'kiss|#1f766f': 'kiss' }, { kiss: values });
    const facts = {
      ...samplePlanMachine,
      numbersOwner: 'file',
      language: { id: 'hpgl', options: { unitsPerMm: 40 } },
    } as const;
    const first = (text: string) => /PU(\d+),(\d+);PD/.exec(text)!.slice(1).map(Number) as [number, number];
    const plain = first(writeMachineFile(plan.passes, 297, fileOptionsOf(facts)));
    const moved = first(
      writeMachineFile(
        plan.passes,
        297,
        fileOptionsOf(facts, { leftMm: 12, bottomMm: 5, correction: [1, 0, 0, 1, -0.5, 0.25] }),
      ),
    );
    // 40 units a mm; downwards on the sheet is down on the plotter.
    expect([moved[0] - plain[0], moved[1] - plain[1]]).toEqual([(12 - 0.5) * 40, (5 - 0.25) * 40]);
  });
});
