import { describe, expect, it } from 'vitest';
import { listMarks } from '#core/sheet/marks/marks.ts';
import { middleOfPage, pageOf } from '#core/sheet/sheetSize.ts';
import { oneEndOf, wholeOf } from '#core/sheet/useOneEnd.ts';

const letter = { name: 'Letter', widthMm: 215.9, heightMm: 279.4, marginMm: 6 };
const marks = { scheme: 'fourCorners', shape: 'disc', lengthMm: 6, thicknessMm: 1, insetMm: 12 } as const;
const box = { minX: 6, minY: 6, maxX: 150, maxY: 100 };

describe('one end of a sheet', () => {
  it('is as long as its pieces and the marks below them want', () => {
    expect(oneEndOf(letter, [box], [])).toMatchObject({ heightMm: 106, wholeHeightMm: 279.4 });
    // Discs of 6 mm, 12 mm in, 5 mm clear.
    const end = oneEndOf(letter, [box], listMarks(marks, letter))!;
    expect(end.heightMm).toBe(123);
    const lowest = listMarks(marks, end).filter(({ keepOut }) => keepOut.minY > 0);
    expect(lowest.every(({ keepOut }) => keepOut.minY >= box.maxY)).toBe(true);
    expect(pageOf(end)).toEqual({ heightMm: 279.4, downMm: expect.closeTo(156.4, 6) as number });
    expect(middleOfPage(end).yMm).toBeCloseTo(279.4 / 2 - 156.4, 6);
    expect(wholeOf({ ...end, isStarted: true })).toEqual(letter);
  });

  it('is none where little would be left, or nothing lies on it', () => {
    expect(oneEndOf(letter, [{ ...box, maxY: 220 }], [])).toBeNull();
    expect(oneEndOf(letter, [], [])).toBeNull();
  });
});
