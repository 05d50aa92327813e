import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addIndex,
  firstMissing,
  hasIndex,
  rangesOf,
  type IndexRanges,
} from '#core/collections/indexRanges.ts';

describe('ranges of indexes', () => {
  it('hold what a set holds, in as few ranges as there can be, whatever the order', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 30 })), (indexes) => {
        const set = new Set(indexes);
        const ranges = indexes.reduce<IndexRanges>(addIndex, []);
        for (let index = 0; index <= 31; index++) expect(hasIndex(ranges, index)).toBe(set.has(index));
        expect(ranges).toEqual(rangesOf(indexes));
        for (const [at, [, to]] of ranges.entries()) expect(to).toBeLessThan(ranges[at + 1]?.[0] ?? Infinity);
        const missing = [...Array(31).keys()].find((index) => index >= 3 && !set.has(index)) ?? null;
        expect(firstMissing(ranges, 3, 31)).toBe(missing);
      }),
      { seed: 5 },
    );
  });
});
