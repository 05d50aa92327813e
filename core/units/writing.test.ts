import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseLength } from '#core/units/parseLength.ts';
import { PLAIN_WRITING, writeDecimals, writingOf } from '#core/units/writing.ts';

const COMMA = { mark: ',', isMonthFirst: false } as const;

describe('how a region writes', () => {
  // Unicode CLDR, as ECMA-402 has it: the decimal mark and the order of day and month.
  it.each([
    ['en-GB', '.', false],
    ['en-US', '.', true],
    ['de-DE', ',', false],
    ['fr', ',', false],
    ['pt-BR', ',', false],
    ['sv-SE', ',', false],
    ['hu', ',', true],
    ['ja', '.', true],
    ['*', '.', false],
    ['no language', '.', false],
    [undefined, '.', false],
  ] as const)('%s', (tag, mark, isMonthFirst) => {
    // Swedish writes 24/12 where only day and month are told.
    expect(writingOf(tag)).toEqual({ mark, isMonthFirst });
  });
});

describe('decimals in a sentence', () => {
  it.each([
    ['Tabs of 0.4 mm, every 12.5 mm.', 'Tabs of 0,4 mm, every 12,5 mm.'],
    ['Blade 4, 45° fine; 3 passes.', 'Blade 4, 45° fine; 3 passes.'],
    ['It listens at 192.168.0.12, version 1.4.2', 'It listens at 192.168.0.12, version 1.4.2'],
    ['−0.4 to +1.25 mm', '−0,4 to +1,25 mm'],
    ['Step 3. 40 sheets.', 'Step 3. 40 sheets.'],
  ])('%s', (plain, written) => {
    expect(writeDecimals(plain, COMMA)).toBe(written);
    expect(writeDecimals(plain, PLAIN_WRITING)).toBe(plain);
  });

  it('leaves names as they were typed', () => {
    expect(writeDecimals('Film 0.1 is 0.1 mm', COMMA, ['Film 0.1'])).toBe('Film 0.1 is 0,1 mm');
  });

  it('are read as the number that was written', () => {
    const lengths = fc.integer({ min: 0, max: 99_999 }).map((hundredths) => hundredths / 100);
    fc.assert(
      fc.property(lengths, (mm) => {
        expect(parseLength(writeDecimals(`${mm} mm`, COMMA), 'inch')).toBeCloseTo(mm, 9);
      }),
      { seed: 19 },
    );
  });
});
