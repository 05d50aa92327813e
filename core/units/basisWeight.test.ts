import { describe, expect, it } from 'vitest';
import { readCaliper } from '#core/stack/readCaliper.ts';
import { basisToGsm, readPaperWeight } from '#core/units/basisWeight.ts';

describe('basis weight', () => {
  it.each([
    [80, 'cover', 216],
    [65, 'cover', 176],
    [80, 'text', 118],
    [110, 'index', 199],
  ] as const)('%d lb %s is %d g/m² (computed from the definition of the basic ream)', (lb, size, gsm) => {
    expect(Math.round(basisToGsm(lb, size))).toBe(gsm);
  });

  it('says T12: 80 lb cover is 216 g/m², the everyday middle weight (common practice, no source)', () => {
    expect(readPaperWeight('80 lb cover')?.words).toBe('80 lb cover, 216 g/m²');
  });

  it.each([
    ['80lb Cover', 216],
    ['80# cover', 216],
    ['110 index', 199],
    ['20 lb bond', 75],
    ['100 lbs. text', 148],
    ['216 gsm', 216],
    ['216 g/m²', 216],
    ['216,5 g/m2', 216.5],
  ])('reads "%s" as people say it', (said, gsm) => {
    expect(readPaperWeight(said)?.gsm).toBeCloseTo(gsm, 0);
  });

  it.each(['80 lb', 'heavy', '', '0 lb cover', '80 lb felt', '-3 gsm'])('says nothing for "%s"', (said) => {
    expect(readPaperWeight(said)).toBeNull();
  });

  it('refuses weights no paper has', () => {
    expect(() => basisToGsm(4000, 'cover')).toThrow(/4000 lb is outside/);
  });
});

describe('readCaliper', () => {
  it.each([
    ['80', 80, true],
    ['3.2 mil', 81.28, true],
    ['3,2 thou', 81.28, true],
    ['12 pt', 304.8, true],
    ['0.08 mm', 80, true],
    ['0.003"', 76.2, true],
    ['.25mm', 250, true],
    ['120 μm', 120, true],
    ['80 lb cover', 284.67, false],
    ['228 gsm', 300, false],
  ])('reads "%s" as %d µm', (said, um, isMeasured) => {
    expect(readCaliper(said, 'µm', 760)).toMatchObject({ caliperUm: expect.closeTo(um, 1), isMeasured });
  });

  it('takes a bare figure in the unit the screen shows', () => {
    expect(readCaliper('3', 'mil', 760)?.caliperUm).toBeCloseTo(76.2, 6);
  });

  it.each(['', 'thick', '3 furlong', 'mm', '80 lb', '1e3'])('says nothing for "%s"', (said) => {
    expect(readCaliper(said, 'µm', 760)).toBeNull();
  });
});
