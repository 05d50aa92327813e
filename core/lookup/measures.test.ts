import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { familyNamed, measureTerms, splitSearch } from '#core/lookup/measures.ts';
import { scoreTerm } from '#core/lookup/terms.ts';
import type { Family } from '#core/stack/families/families.ts';
import { basisToGsm } from '#core/units/basisWeight.ts';

const sheet = (caliperUm: number, role: 'face' | 'body' = 'body') =>
  [{ role, caliperUm, isMeasured: true }] as const;
const finds = (typed: string, caliperUm: number, family: Family) => {
  const terms = measureTerms(sheet(caliperUm, family === 'plainVinyl' ? 'face' : 'body'), family);
  return splitSearch(typed).every(({ term }) => terms.includes(term));
};

describe('a measure that is typed', () => {
  it('is one word, whatever stands around it', () => {
    expect(splitSearch('110 lb card')).toEqual([
      { term: '#lb110', said: '110 lb' },
      { term: 'card', said: 'card' },
    ]);
    expect(splitSearch('vinyl, 3,5 mil').map(({ said }) => said)).toEqual(['3,5 mil', 'vinyl']);
    expect(splitSearch('lot 26-B, 4 millers').map(({ term }) => term)).toEqual([
      'lot',
      '26',
      'b',
      '4',
      'millers',
    ]);
  });

  it.each([
    ['4 mil', 100, 'plainVinyl'],
    ['3.5 mil', 90, 'plainVinyl'],
    ['90 µm', 90, 'plainVinyl'],
    ['90 mic', 91, 'plainVinyl'],
    ['90', 90, 'plainVinyl'],
    ['12 pt', 300, 'cardstock'],
    ['0.4 mm', 400, 'cardstock'],
    // 110 lb of the index size are 199 g/m², of the cover size 298 (basis weights, see basisWeight.ts).
    ['110 lb', (basisToGsm(110, 'index') * 1000) / 760, 'cardstock'],
    ['110 lb', (basisToGsm(110, 'cover') * 1000) / 760, 'cardstock'],
    ['300 gsm', 300_000 / 760, 'cardstock'],
  ] as const)('%s finds %f µm of %s', (typed, caliperUm, family) => {
    expect(finds(typed, caliperUm, family)).toBe(true);
  });

  it.each([
    ['4 mil', 80, 'plainVinyl'],
    ['90', 80, 'plainVinyl'],
    ['110 lb', (basisToGsm(90, 'cover') * 1000) / 760, 'cardstock'],
    ['300 gsm', 300, 'plainVinyl'],
  ] as const)('%s does not find %f µm of %s', (typed, caliperUm, family) => {
    expect(finds(typed, caliperUm, family)).toBe(false);
  });

  it('is never met by a slip of the finger', () => {
    expect(scoreTerm('#lb110', '#lb100')).toBe(0);
    expect(scoreTerm('#um9', '#um90')).toBe(0);
  });

  it('finds what was measured in it, whatever it is', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 3000 }), (um) => finds(`${um} µm`, um, 'plainVinyl')),
      { seed: 19 },
    );
  });
});

describe('a family that is typed', () => {
  it.each([
    ['glitter card 300 g', 'cardstock'],
    ['Puffin printable vinyl', 'printableVinyl'],
    ['red vinyl', 'plainVinyl'],
    ['iron-on flock', 'transferFilm'],
    ['label paper, matt', 'stickerPaper'],
    ['something new', null],
  ] as const)('%s is %s', (typed, family) => {
    expect(familyNamed(typed)).toBe(family);
  });
});
