import { describe, expect, it } from 'vitest';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { integrateOwn } from '#core/knowledge/integrateOwn.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import { drawNormal, seededRandom } from '#core/random/seededRandom.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import type { Trial } from '#core/threshold/trial.ts';

/** From where a card parts to where the mat is scarred: the middle of what these sheets have, in ln force, and its spread. */
const ROOM = 0.3;
const ROOM_SD = 0.3;
const GRADES: readonly DepthGrade[] = [0, 1, 2, 7, 8];
const place = {
  traits: {
    family: 'cardstock' as const,
    stack: [{ role: 'body' as const, caliperUm: 280, isMeasured: true }],
    darkness: 0,
  },
  machineId: 1,
  condition: 'bare',
  lot: '',
  colour: '',
};

/** Cards cut as people do it: from low upwards until the sheet parts, then once more; seldom far enough to scar the mat. */
function writeBook(sheets: number): readonly EvidenceSheet[] {
  const random = seededRandom(11);
  return Array.from({ length: sheets }, (_, materialId): EvidenceSheet => {
    const parts = Math.log(150) + 0.15 * drawNormal(random);
    const room = ROOM * Math.exp(ROOM_SD * drawNormal(random));
    const edges = [parts - 0.8, parts - 0.1, parts, parts + room];
    const sigma = 0.055 * Math.exp(0.2 * drawNormal(random));
    const cut = (forceGf: number): Trial => {
      const acting = Math.log(forceGf) + sigma * drawNormal(random);
      const grade = GRADES[edges.filter((edge) => acting > edge).length]!;
      return { forceGf, grade, passes: 1, speedMmPerS: 100, bladeMetres: 0 };
    };
    const trials = [cut(90)];
    while (trials.at(-1)!.grade < 7 && trials.length < 8) trials.push(cut(trials.at(-1)!.forceGf * 1.22));
    trials.push(cut(trials.at(-1)!.forceGf));
    return { ...place, materialId, trials };
  });
}

const book = writeBook(150);
const fitted = fitKnowledge(book);

describe('own effects integrated out', () => {
  const found = integrateOwn(book, fitted)!;
  const room = fitted.mean[fitted.names.indexOf('matSingle')]!;

  it('take back what the joint peak sets too near: the room above what parts, which few cuts reach', () => {
    const truth = Math.log(ROOM);
    const shifted = room + found.shift.matSingle!;
    expect(truth - room).toBeGreaterThan(0.1);
    expect(Math.abs(shifted - truth)).toBeLessThan(0.6 * Math.abs(room - truth));
  });

  it('come to what is believed of the next sheet', () => {
    const asked = { ...place, materialId: 9_999 };
    const plain = sheetPrior(asked, fitted).mean[P.mat]!;
    const better = sheetPrior(asked, { ...fitted, shift: found.shift }).mean[P.mat]!;
    expect(better - plain).toBeCloseTo(found.shift.matSingle!, 6);
  });

  it('are the same each time, and nothing where the book is small', () => {
    expect(integrateOwn(book, fitted)).toEqual(found);
    expect(integrateOwn(book.slice(0, 7), fitKnowledge(book.slice(0, 7)))).toBeNull();
  });

  it('show how far sheets spread: less than usual where they are alike', () => {
    const { squares } = found.moments;
    const { sum, count } = squares.get('sheet')!;
    expect(count).toBe(150);
    // These cards differ by 0.15 in ln force, where 0.24 is usual. What is learnt of it: knowledge.test.ts.
    expect(sum / count).toBeLessThan(0.8);
  });
});
