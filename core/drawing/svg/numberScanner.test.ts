import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NumberScanner } from '#core/drawing/svg/numberScanner.ts';

const scan = (text: string) => {
  const scanner = new NumberScanner();
  scanner.restart(text);
  return scanner;
};
const readAll = (text: string) => {
  const scanner = scan(text);
  const found: number[] = [];
  while (scanner.letter() >= 0) found.push(scanner.number());
  return found;
};
/** A number as people and programs write it, with the value that JavaScript gives it. */
const written = fc.oneof(
  fc.double({ noNaN: true, noDefaultInfinity: true }).map(String),
  fc.double({ min: -1e4, max: 1e4, noNaN: true }).map((value) => value.toFixed(3)),
  fc.integer().map((value) => (value < 0 ? String(value) : `+${value}`)),
  fc.integer({ min: 0, max: 999_999 }).map((value) => `.${value}`),
  fc.integer({ min: 0, max: 999 }).map((value) => `${value}.`),
  fc.tuple(fc.integer({ min: 1, max: 99 }), fc.integer({ min: -30, max: 30 })).map(([a, b]) => `${a}E${b}`),
  fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 18, maxLength: 40 }).map((digits) => digits.join('')),
);

describe('the scanner of numbers', () => {
  it('gives every number as JavaScript reads it, whatever stands between', () => {
    fc.assert(
      fc.property(
        fc.array(written, { minLength: 1, maxLength: 12 }),
        fc.constantFrom(' ', ',', '  ', ' , ', '\n', '\t,\r\n'),
        (numbers, between) => {
          expect(readAll(numbers.join(between))).toEqual(numbers.map(Number));
        },
      ),
      { seed: 61, numRuns: 500 },
    );
  });

  it('needs nothing between where a sign or a second point begins the next number', () => {
    expect(readAll('10-5+3.5.25-.5e1-2')).toEqual([10, -5, 3.5, 0.25, -5, -2]);
  });

  it('reads flags that run into each other and into what follows', () => {
    const scanner = scan('0 1,10100.5');
    expect([scanner.flag(), scanner.flag(), scanner.flag(), scanner.flag(), scanner.number()]).toEqual([
      0, 1, 1, 0, 100.5,
    ]);
  });

  it('takes letters by their code, and leaves what is none', () => {
    const scanner = scan('Mz5');
    expect([scanner.letter(), scanner.letter(), scanner.letter()]).toEqual([77, 122, 0]);
    expect(scanner.number()).toBe(5);
    expect(scanner.letter()).toBe(-1);
  });

  it('begins anew with another text', () => {
    const scanner = scan('1 2');
    expect(scanner.number()).toBe(1);
    scanner.restart('7');
    expect(scanner.number()).toBe(7);
    expect(scanner.letter()).toBe(-1);
  });

  it.each([
    ['', 'a number is missing at character 1, where it ends'],
    ['-', 'a number is missing at character 1, "-"'],
    ['.', 'a number is missing at character 1'],
    ['5,,6', 'a number is missing at character 3, ",6"'],
    ['1e999', 'a number is not finite at character 1'],
    ['x', 'a number is missing'],
  ])('refuses "%s" with the place', (text, words) => {
    expect(() => readAll(text === '' ? ' ' : text).concat(text === '' ? scan('').number() : 0)).toThrow(
      words,
    );
  });

  it('refuses a flag that is neither 0 nor 1', () => {
    expect(() => scan('2').flag()).toThrow('a flag is 0 or 1 at character 1, "2"');
  });
});
