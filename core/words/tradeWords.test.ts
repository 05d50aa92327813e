import { describe, expect, it } from 'vitest';
import { TRADE_WORDS, wordsIn } from '#core/words/tradeWords.ts';

describe('the words of the trade', () => {
  it('have a name of their own, and two short lines that each end as a sentence does', () => {
    const forms = TRADE_WORDS.flatMap(({ word, also }) => [word, ...also]);
    expect(new Set(forms).size).toBe(forms.length);
    for (const { lines } of TRADE_WORDS)
      for (const line of lines) {
        expect(line.length).toBeLessThan(80);
        expect(line).toMatch(/^[A-Z].*\.$/);
      }
  });

  it('are found whole, whatever stands beside them, and never within another', () => {
    const ids = (text: string) => wordsIn(text).map(({ id }) => id);
    expect(ids('Kiss: 106 gf, 2 passes.')).toEqual(['gf', 'pass', 'kiss']);
    expect(ids('table, tablet, faceless')).toEqual([]);
    expect(ids('Registration marks (four)')).toEqual(['marks']);
    expect(ids('')).toEqual([]);
  });
});
