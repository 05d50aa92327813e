import { describe, expect, it } from 'vitest';
import { listTrials } from '#core/dialIn/listTrials.ts';
import { isSamePlace, type EvidenceSheet } from '#core/knowledge/evidence.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import { drawNormal, seededRandom } from '#core/random/seededRandom.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import { place, station, testCut } from '#core/tests/exampleScope.ts';

const FINE = '45° fine';
const DEEP = '60° deep';
/** A deep blade wants so much more force here, in ln. */
const MORE = 0.2;

/** A book of film, where every other sheet was cut with the deep blade. */
function writeBook(sheets: number): readonly EvidenceSheet[] {
  const random = seededRandom(5);
  return Array.from({ length: sheets }, (_, index): EvidenceSheet => {
    const bladeKind = index % 2 === 0 ? FINE : DEEP;
    const free = Math.log(70) + (bladeKind === DEEP ? MORE : 0) + 0.1 * drawNormal(random);
    const trials = [-0.3, -0.05, 0.05, 0.3].map((offset, at) => ({
      forceGf: Math.exp(free + offset),
      grade: ([0, 2, 3, 4] as const)[at] as DepthGrade,
      passes: 1,
      speedMmPerS: 100,
      bladeMetres: 0,
    }));
    return { ...place, materialId: 100 + index, bladeKind, trials };
  });
}

const book = writeBook(120);
const fitted = fitKnowledge(book);
const believed = (bladeKind: string, knowledge = fitted) =>
  sheetPrior({ ...place, materialId: 1, bladeKind }, knowledge).mean[0]!;

describe('kinds of blade', () => {
  it('have an effect of their own, found from the book (0.2 in ln force, within 0.05)', () => {
    expect(Math.abs(believed(DEEP) - believed(FINE) - MORE)).toBeLessThan(0.05);
    // Nobody knows: between the two.
    expect(believed('')).toBeGreaterThan(believed(FINE));
    expect(believed('')).toBeLessThan(believed(DEEP));
  });

  it('a kind never seen is believed wider than one that is known', () => {
    const spread = (bladeKind: string) => {
      const { precision, mean } = sheetPrior({ ...place, materialId: 1, bladeKind }, fitted);
      return precision[0]! / mean.length;
    };
    expect(spread('30° pen knife')).toBeLessThan(spread(FINE));
  });

  it('cuts of another kind speak through what is believed, and are no trials of the sheet itself', () => {
    const cut = (bladeKind: string) => ({ ...testCut, lot: '', colour: '', bladeKind });
    const at = { ...station, blade: { ...station.blade!, kind: DEEP } };
    const loaded = { ...station.loaded, lot: '', colour: '' };
    expect(listTrials(at, loaded, [cut(DEEP)])).toHaveLength(1);
    expect(listTrials(at, loaded, [cut(FINE)])).toHaveLength(0);
    // A cut from before blades were told apart still counts.
    expect(listTrials(at, loaded, [cut('')])).toHaveLength(1);
    const own = book[0]!;
    const alone = sheetPrior({ ...own, bladeKind: DEEP }, null);
    const taught = sheetPrior({ ...own, bladeKind: DEEP }, null, { learnt: [], all: [own] });
    expect(isSamePlace(own, { ...own, bladeKind: DEEP })).toBe(false);
    expect(taught.precision[0]).toBeGreaterThan(2 * alone.precision[0]!);
  });

  it('are taken out of a fit from before they were told apart as they were put in', () => {
    const plain = book.map((sheet) => ({ ...sheet, bladeKind: '' }));
    const old = fitKnowledge(plain);
    const [sheet] = book;
    const without = fitKnowledge(plain.slice(1));
    const asked = sheetPrior({ ...sheet!, bladeKind: FINE }, old, { learnt: [sheet!], all: [sheet!] });
    const never = sheetPrior({ ...sheet!, bladeKind: FINE }, without);
    expect(asked.mean[0]).toBeCloseTo(never.mean[0]!, 2);
  });
});
