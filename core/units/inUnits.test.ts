import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inUnits } from '#core/units/inUnits.ts';
import { parseLength } from '#core/units/parseLength.ts';

describe('a sentence at a bench that counts in inches', () => {
  it.each([
    ['The sheet is 215.9 × 279.4 mm.', 'The sheet is 8.5 × 11 in.'],
    ['four discs of 6 mm, 12 mm from the edges', 'four discs of 0.24 in, 0.47 in from the edges'],
    ['This job takes 110 of 279 mm, at the lower edge', 'This job takes 4.3 of 11 in, at the lower edge'],
    ['Blade 7 has cut 205 of about 360 m', 'Blade 7 has cut 673 of about 1181 ft'],
    ['bits below 4 mm² lift', 'bits below 0.006 in² lift'],
    ['a caliper lies between 1 and 5000 µm', 'a caliper lies between 0 and 196.9 mil'],
    ['lines 3 and 4 share 2.0 mm of their way', 'lines 3 and 4 share 0.079 in of their way'],
    ['No. 7, 45° fine, offset 0.25 mm', 'No. 7, 45° fine, offset 0.0098 in'],
    ['at 100 mm/s, 2 passes', 'at 3.9 in/s, 2 passes'],
    ['about 80 µm at 800 kg/m³', 'about 3.1 mil at 800 kg/m³'],
    ['−0.4 mm to the left', '−0.016 in to the left'],
    ['7 min, 3 marks and 12 months', '7 min, 3 marks and 12 months'],
    ['110 g/m² card, sheet 2 of 3', '110 g/m² card, sheet 2 of 3'],
  ])('%s', (metric, inch) => {
    expect(inUnits(metric, 'inch')).toBe(inch);
    expect(inUnits(metric, 'metric')).toBe(metric);
  });

  it('leaves what people typed as they typed it', () => {
    const own = ['Grey board 2 mm', 'the groove at 12 mm', ''];
    const text = 'Load Grey board 2 mm, 210 × 297 mm, to the groove at 12 mm: it stands out 3 mm.';
    expect(inUnits(text, 'inch', own)).toBe(
      'Load Grey board 2 mm, 8.3 × 11.7 in, to the groove at 12 mm: it stands out 0.12 in.',
    );
  });
});

describe('what is typed', () => {
  it.each([
    ['3/8 in', 9.525],
    ['1 1/2"', 38.1],
    ['1½ in', 38.1],
    ['15 mil', 0.381],
    ['0,4 mm', 0.4],
    ['.5', 0.5],
    ['2 cm', 20],
    ['−3', -3],
    ['80 μm', 0.08],
    ['12 pt', 0.3048],
    ['1 ft', 304.8],
  ])('%s is a length', (text, mm) => {
    expect(parseLength(text, 'metric')).toBeCloseTo(mm, 9);
  });

  it('has the units of the bench where none is named', () => {
    expect(parseLength('2', 'inch')).toBeCloseTo(50.8, 9);
    expect(parseLength('2', 'metric')).toBe(2);
    expect(parseLength('2 mm', 'inch')).toBe(2);
  });

  it.each(['', 'wide', '3/0x', '1 2', '4 parsec', '1..2', '--3'])('%s is no quantity', (text) => {
    expect(parseLength(text, 'metric')).toBeNull();
  });

  it('comes back as it was, in either system and written either way', () => {
    const mm = fc.double({ min: 0.001, max: 2000, noNaN: true });
    fc.assert(
      fc.property(mm, fc.boolean(), (value, isComma) => {
        const text = value.toFixed(4);
        const typed = isComma ? text.replace('.', ',') : text;
        const inch = (value / 25.4).toFixed(6);
        return (
          Math.abs((parseLength(typed, 'metric') ?? NaN) - value) < 1e-4 &&
          Math.abs((parseLength(inch, 'inch') ?? NaN) - value) < 1e-4
        );
      }),
      { seed: 19 },
    );
  });
});
