import { describe, expect, it } from 'vitest';
import { itemAt } from '#core/collections/itemAt.ts';

describe('itemAt', () => {
  it('reads arrays and typed arrays, 0 and the empty text among what may stand there', () => {
    expect(itemAt([0, ''], 0)).toBe(0);
    expect(itemAt([0, ''], 1)).toBe('');
    expect(itemAt(Float64Array.of(1, 2.5), 1)).toBe(2.5);
  });

  it.each([-1, 2, 0.5])('names place %s where nothing stands', (index) => {
    expect(() => itemAt([1, 2], index)).toThrow(RangeError);
    expect(() => itemAt([1, 2], index)).toThrow(`no item ${index} among 2`);
  });
});
