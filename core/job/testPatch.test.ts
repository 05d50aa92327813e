import { describe, expect, it } from 'vitest';
import { findPlace, measureCard } from '#core/dialIn/testCard.ts';
import { makeTestPiece } from '#core/dialIn/testPiece.ts';
import { layOutJob, type JobDesign } from '#core/job/layOutJob.ts';
import { reserveJob } from '#core/job/reserveJob.ts';
import { patchOf } from '#core/job/testPatch.ts';
import { PLAIN_PRINT } from '#core/job/job.ts';
import type { Stack } from '#core/stack/layer.ts';
import { sampleDesign } from '#core/tests/sampleJob.ts';

/** Tests are cut on what the job will cut (T27): a printed job prints a patch for them. */
const bare: Stack = [
  { role: 'face', caliperUm: 90, isMeasured: false },
  { role: 'liner', caliperUm: 120, isMeasured: false },
];
const laminated: Stack = [
  { role: 'laminate', caliperUm: 40, isMeasured: false },
  { role: 'ink', caliperUm: 5, isMeasured: false },
  ...bare,
];
const machine = { marks: { scheme: 'threeCorners', lengthMm: 20, thicknessMm: 1, insetMm: 10 } } as const;
const size = measureCard(makeTestPiece('square'), 1);

function job(art: string, keepsTestCorner: boolean): JobDesign {
  const svg = `<svg width="80mm" height="60mm" viewBox="0 0 80 60">${art}<circle cx="40" cy="30" r="25" stroke="#f00" fill="none"/></svg>`;
  const roles = { '|#ff0000': 'kiss', '|#ffe100': 'art', '|#0a2a5c': 'art' } as const;
  const print = { ...PLAIN_PRINT, hasMarks: true, keepsTestCorner };
  return sampleDesign(svg, roles, { xMm: 40, yMm: 60 }, { print });
}
const art =
  '<rect x="20" y="10" width="20" height="30" fill="#ffe100"/><rect x="40" y="10" width="20" height="30" fill="#0a2a5c"/>';
const place = (given: JobDesign, stack: Stack) => {
  const reserved = reserveJob(given, machine, stack);
  return findPlace(size, { ...reserved, marginMm: 6 });
};

describe('the corner for tests of a job that prints', () => {
  it('is printed in the heaviest ink of its art', () => {
    const given = job(art, true);
    const laid = layOutJob(given, machine);
    expect(patchOf(laid, given)).toEqual({ box: laid.testCorner, colour: '#0a2a5c' });
  });

  it('is left bare where nothing is printed, or no corner is kept', () => {
    for (const given of [job('', true), job(art, false)]) {
      expect(patchOf(layOutJob(given, machine), given)).toBeNull();
    }
  });

  it('takes a test of the printed or laminated state, and nothing else of the sheet does', () => {
    const given = job(art, true);
    const { testCorner } = layOutJob(given, machine);
    const at = place(given, laminated)!;
    expect(at.x).toBeGreaterThanOrEqual(testCorner!.minX);
    expect(at.x + size.widthMm).toBeLessThanOrEqual(testCorner!.maxX);
    expect(at.y).toBeGreaterThanOrEqual(testCorner!.minY);
    expect(at.y + size.heightMm).toBeLessThanOrEqual(testCorner!.maxY);
  });

  it('is kept off by a test of the bare state', () => {
    const given = job(art, true);
    const { testCorner } = layOutJob(given, machine);
    const { taken } = reserveJob(given, machine, bare);
    expect(taken).toContainEqual(testCorner);
  });

  it('is asked for, in words, before grades of bare stock are taken for printed ones', () => {
    expect(() => reserveJob(job(art, false), machine, laminated)).toThrow(
      /grades from there would be of bare stock/,
    );
    expect(place(job(art, false), bare)).not.toBeNull();
  });

  it('is no matter to a sheet that was printed elsewhere', () => {
    expect(place(job('', false), laminated)).not.toBeNull();
  });
});
