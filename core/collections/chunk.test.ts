import { describe, expect, it } from 'vitest';
import { chunk } from '#core/collections/chunk.ts';

describe('chunk', () => {
  it('parts items in order, the last group with what is left', () => {
    expect(chunk([1, 2, 3, 4, 5], 2)).toEqual([[1, 2], [3, 4], [5]]);
    expect(chunk([], 3)).toEqual([]);
  });

  it('refuses a size that would never end', () => {
    expect(() => chunk([1], 0)).toThrow(RangeError);
    expect(() => chunk([1], Number.NaN)).toThrow(RangeError);
  });
});
