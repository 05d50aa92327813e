import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rankHits, type Posting } from '#core/lookup/rankHits.ts';
import { rankRelatives, type RelativeSetting, type RelativeSheet } from '#core/lookup/rankRelatives.ts';
import { countEdits, scoreTerm, splitTerms, termGrams } from '#core/lookup/terms.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { LayerRole, Stack } from '#core/stack/layer.ts';

describe('terms', () => {
  it('split as people type, without accents and marks', () => {
    expect(splitTerms('Mooring-vinyl, NÁVY (lot 26/B) Ærø')).toEqual([
      'mooring',
      'vinyl',
      'navy',
      'lot',
      '26',
      'b',
      'aero',
    ]);
  });

  it.each([
    ['herringlass', 'herringglass', 1],
    ['teh', 'the', 1],
    ['kitten', 'sitting', 3],
    ['', 'abc', 3],
    ['same', 'same', 0],
  ])('%s is %s within %d edits', (a, b, edits) => {
    expect(countEdits(a, b, 5)).toBe(edits);
  });

  it('edits are the same both ways, and no more than the longer word', () => {
    const word = fc.string({ minLength: 0, maxLength: 9 });
    fc.assert(
      fc.property(word, word, (a, b) => {
        const edits = countEdits(a, b, 20);
        expect(edits).toBe(countEdits(b, a, 20));
        expect(edits).toBeLessThanOrEqual(Math.max(a.length, b.length));
        expect(edits === 0).toBe(a === b);
      }),
      { seed: 7 },
    );
  });

  it('a word with one slip shares grams with what it means', () => {
    const meant = new Set(termGrams('herringglass'));
    expect(termGrams('herringlass').filter((gram) => meant.has(gram)).length).toBeGreaterThan(5);
    expect(termGrams('b')).toEqual(['^b']);
  });

  it('scores the whole word over its beginning over slips, and short words must be exact', () => {
    const scores = ['navy', 'nav', 'nayv', 'green'].map((typed) => scoreTerm(typed, 'navy'));
    expect(scores[0]).toBe(1);
    expect([...scores].sort((a, b) => b - a)).toEqual(scores);
    expect(scores[3]).toBe(0);
    expect(scoreTerm('b', 'a')).toBe(0);
    expect(scoreTerm('hering', 'herringglass')).toBeGreaterThan(0);
  });
});

describe('rankHits', () => {
  const postings: readonly Posting[] = [
    { materialId: 1, term: 'mooring', field: 'name' },
    { materialId: 1, term: 'navy', field: 'colour' },
    { materialId: 2, term: 'navy', field: 'name' },
    { materialId: 2, term: 'card', field: 'family' },
    { materialId: 3, term: 'navy', field: 'note' },
  ];

  it('puts every word before some of them, and the pack before an old note', () => {
    expect(rankHits(['navy'], postings, 9).map(({ materialId }) => materialId)).toEqual([2, 1, 3]);
    expect(rankHits(['navy', 'mooring'], postings, 9).map(({ materialId }) => materialId)).toEqual([1, 2, 3]);
    const nearest = rankHits(['absent', 'navy'], postings, 9);
    expect(nearest.map(({ materialId, met }) => [materialId, met.map(({ typed }) => typed)])).toEqual([
      [2, ['navy']],
      [1, ['navy']],
      [3, ['navy']],
    ]);
    expect(rankHits(['absent'], postings, 9)).toEqual([]);
    expect(rankHits(['nvay'], postings, 1)[0]?.met).toEqual([{ typed: 'nvay', term: 'navy', field: 'name' }]);
  });
});

const stack = (...rows: readonly (readonly [LayerRole, number])[]): Stack =>
  rows.map(([role, caliperUm]) => ({ role, caliperUm, isMeasured: true }));
const sheet: RelativeSheet = {
  materialId: 1,
  conditionId: 10,
  maker: 'Oldstrand',
  family: 'plainVinyl',
  stack: stack(['face', 80], ['liner', 130]),
  darkness: 0,
};
const setting = (change: Partial<RelativeSheet>, machineId = 1, forceGf = 100): RelativeSetting => {
  const own = { ...sheet, materialId: 2, conditionId: 20, ...change };
  return {
    key: { conditionId: own.conditionId, machineId, bladeKind: '45° fine', operation: 'kiss' },
    sheet: own,
    values: { force: forceGf } as SettingValues,
    forceGf,
    state: 'proven',
    machineName: machineId === 1 ? 'Gannet' : 'Dunlin',
  };
};
const here = { machineId: 1, bladeKind: '45° fine' };

describe('rankRelatives', () => {
  it('puts the same sheet on another machine first, then the same maker, thinner, then another family', () => {
    const thinner = setting({ stack: stack(['face', 60], ['liner', 130]) });
    const elsewhere = setting({ materialId: 1, conditionId: 10 }, 2);
    const other = setting({ conditionId: 30, family: 'stencilSheet' });
    const own = setting({ materialId: 1, conditionId: 10 });
    const found = rankRelatives(sheet, here, [other, thinner, own, elsewhere], 5);
    expect(found.map((one) => one.setting)).toEqual([elsewhere, thinner, other]);
    expect(found[0]?.reasons).toEqual(['the same sheet', 'on Dunlin, through grams']);
    expect(found[1]?.reasons).toEqual(['same maker and family', 'it is thinner by 20 µm']);
  });

  it('speaks for more force on a thicker, printed, darker sheet, and starts below it', () => {
    const plain = setting({ stack: stack(['face', 80], ['liner', 130]) });
    const wanted = { ...sheet, stack: stack(['ink', 5], ['face', 100], ['liner', 130]), darkness: 0.9 };
    const [near] = rankRelatives(wanted, here, [plain], 1);
    expect(near!.impliedGf).toBeGreaterThan(100 * Math.exp(0.25 + 0.75 * Math.log(100 / 80)));
    expect(near!.startGf).toBeCloseTo(near!.impliedGf * 0.85, 9);
    expect(near!.reasons).toContain('that one is not printed');
    expect(near!.reasons).toContain('that one is paler');
  });
});
