import { describe, expect, it } from 'vitest';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { learnReaders } from '#core/knowledge/learnReaders.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { Stack } from '#core/stack/layer.ts';
import { findWindow } from '#core/threshold/findWindow.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';
import type { Trial } from '#core/threshold/trial.ts';

const film: Stack = [
  { role: 'face', caliperUm: 85, isMeasured: true },
  { role: 'adhesive', caliperUm: 25, isMeasured: true },
  { role: 'liner', caliperUm: 130, isMeasured: true },
];
const conditions = { passes: 1, speedMmPerS: 100, bladeMetres: 0 };
/** Where each grade from 1 on begins, as a share of the force that frees the face. */
const EDGES = [0.6, 0.8, 1, 1.25, 1.4, 1.6, 1.8, 2.4];
const gradeAt = (share: number) => EDGES.filter((edge) => share > edge).length as DepthGrade;

/** Sheets of six cuts each, graded by somebody who sees any grade at all so often. */
function bookOf(sheets: number, reader: string, wild: number, first: number): readonly EvidenceSheet[] {
  const random = seededRandom(first + 3);
  return Array.from({ length: sheets }, (_, index) => {
    const free = 70 * Math.exp(0.1 * (random() - 0.5));
    const trials = [0.7, 0.9, 1.1, 1.3, 1.7, 2].map((share): Trial => {
      const seen = random() < wild ? (Math.floor(9 * random()) as DepthGrade) : gradeAt(share);
      return { ...conditions, forceGf: free * share, grade: seen, reader };
    });
    const traits = { family: 'printableVinyl' as const, stack: film, darkness: 0 };
    return {
      traits,
      materialId: first + index,
      machineId: 1,
      condition: 'bare',
      lot: '',
      colour: '',
      trials,
    };
  });
}

describe('how people read grades', () => {
  const book = [...bookOf(30, 'Ines', 0, 0), ...bookOf(30, 'Tove', 0.25, 100)];
  const readers = learnReaders(book, fitKnowledge(book));

  it('is learnt from what the book expects of their sheets', () => {
    expect(readers['Ines']).toBeLessThan(1.2);
    expect(readers['Tove']).toBeGreaterThan(2);
  });

  it('is learnt slowly: three sheets move it little', () => {
    const early = [...bookOf(30, 'Ines', 0, 0), ...bookOf(3, 'Tove', 0.25, 100)];
    expect(learnReaders(early, fitKnowledge(early))['Tove']).toBeLessThan(readers['Tove']!);
  });

  it('is nobody’s business where nobody says who graded', () => {
    const unsigned = book.map((sheet) => ({
      ...sheet,
      trials: sheet.trials.map(({ reader: _, ...trial }) => trial),
    }));
    expect(learnReaders(unsigned, fitKnowledge(unsigned))).toEqual({});
  });

  it('makes one wild grade of the careless move a sheet less than the same of the careful', () => {
    const fitted = { ...fitKnowledge(book, { readers }), nextReaders: readers };
    const place = { ...book[0]!, materialId: 900 };
    const belief = sheetPrior(place, fitted);
    const forces = Array.from({ length: 60 }, (_, index) => 40 + index * 2);
    const bestAfter = (reader: string) => {
      const steady = [1, 1.1, 1.2].map((share) => ({
        ...conditions,
        forceGf: 70 * share,
        grade: gradeAt(share),
        reader,
      }));
      const wild = { ...conditions, forceGf: 78, grade: 7 as const, reader };
      const fit = (trials: readonly Trial[]) =>
        findWindow(sheetModel(4).fit({ belief, conditions }, trials), 'kiss', forces).best.right;
      return fit(steady) - fit([...steady, wild]);
    };
    expect(bestAfter('Tove')).toBeLessThan(bestAfter('Ines'));
  });
});
