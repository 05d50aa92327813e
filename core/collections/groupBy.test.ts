import { describe, expect, it } from 'vitest';
import { groupBy } from '#core/collections/groupBy.ts';

describe('groupBy', () => {
  it('keeps keys and items in the order in which they came, whatever the key is', () => {
    const groups = groupBy([5, 2, 8, 3], (value) => value % 2 === 0);
    expect([...groups]).toEqual([
      [false, [5, 3]],
      [true, [2, 8]],
    ]);
  });

  it('takes anything that can be gone through once, and nothing', () => {
    expect([...groupBy(['a', 'bb', 'c'].keys(), (index) => index)].length).toBe(3);
    expect(groupBy([], () => 1).size).toBe(0);
  });
});
