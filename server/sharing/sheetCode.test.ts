import { deflateSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { toBase45 } from '#core/book/base45.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { readSheetCode, writeSheetCode } from '#server/sharing/sheetCode.ts';
import { USUAL_WORDS } from '#server/sharing/usualWords.ts';

const JSON_TEXT = '{"format":"pale-feather-sheet","version":1,"material":{"name":"Herringglass ü"}}';

describe('a sheet as a code', () => {
  it('comes back to the letter, also with the lines broken where it was pasted', () => {
    const code = writeSheetCode(JSON_TEXT);
    expect(code).toMatch(/^FEATHER1:[0-9A-Z $%*+\-./:]+\.$/);
    expect(readSheetCode(code)).toBe(JSON_TEXT);
    expect(readSheetCode(`  ${code.slice(0, 20)}\r\n${code.slice(20)}\n`)).toBe(JSON_TEXT);
  });

  it('that was printed once is read for good', () => {
    // Written by the first edition: if this fails, codes at benches can no longer be read.
    expect(readSheetCode(FIRST_EDITION)).toBe(JSON_TEXT);
  });

  it.each([
    ['of a later edition', (code: string) => code.replace('1:', '2:'), /later Pale Feather/],
    ['cut off', (code: string) => code.slice(0, -4), /cut off/],
    ['with a foreign letter', (code: string) => `${code.slice(0, 30)}ü${code.slice(31)}`, /letter|damaged/],
  ])('%s is refused in words', (_, spoil, words) => {
    expect(() => readSheetCode(spoil(writeSheetCode(JSON_TEXT)))).toThrow(words);
  });

  it('with one wrong letter is never taken for another sheet', () => {
    const random = seededRandom(9);
    const code = writeSheetCode(JSON_TEXT);
    for (let turn = 0; turn < 300; turn++) {
      const at = 9 + Math.floor(random() * (code.length - 10));
      const letter = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ'[Math.floor(random() * 36)] ?? '0';
      if (code[at] === letter) continue;
      expect(() => readSheetCode(code.slice(0, at) + letter + code.slice(at + 1))).toThrow(/damaged/);
    }
  });

  it('that unfolds to more than any sheet is refused', () => {
    const bomb = deflateSync(Buffer.alloc(40_000_000, 32), { dictionary: USUAL_WORDS });
    expect(() => readSheetCode(`FEATHER1:${toBase45(bomb)}.`)).toThrow(/damaged/);
  });
});

const FIRST_EDITION = 'FEATHER1:9DF2J7SXLGSKS07LXKWV257T8ALDP4 -2AT37TK.MB/20T4JK5.';
