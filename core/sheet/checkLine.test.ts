import fc from 'fast-check';
import { expect, it } from 'vitest';
import { nameCheckLength, placeCheckLine } from '#core/sheet/checkLine.ts';
import { listMarks } from '#core/sheet/marks/marks.ts';

const scheme = { scheme: 'fourCorners', shape: 'disc', lengthMm: 5, thicknessMm: 1, insetMm: 10 } as const;

it('is 100 mm long in the middle of the lower edge of a usual sheet, 50 on a narrow one, none on a label', () => {
  const of = (widthMm: number) => {
    const sheet = { widthMm, heightMm: 200 };
    return placeCheckLine(sheet, listMarks(scheme, sheet))?.lengthMm ?? null;
  };
  expect(of(210)).toBe(100);
  expect(of(152)).toBe(100);
  expect(of(110)).toBe(50);
  expect(of(60)).toBeNull();
  expect(placeCheckLine({ widthMm: 210, heightMm: 297 }, [])).toEqual({
    fromX: 55,
    toX: 155,
    y: 292.4,
    lengthMm: 100,
  });
});

it('never lies in what a sensor needs clear, whatever the sheet and the marks', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 40, max: 600, noNaN: true }),
      fc.double({ min: 40, max: 600, noNaN: true }),
      fc.constantFrom(2, 3, 4, 5),
      (widthMm, heightMm, alongSide) => {
        const marks = listMarks({ ...scheme, alongSide }, { widthMm, heightMm });
        const line = placeCheckLine({ widthMm, heightMm }, marks);
        if (!line) return;
        expect(line.toX - line.fromX).toBeCloseTo(line.lengthMm, 9);
        for (const { keepOut } of marks) {
          const isOver = keepOut.minX < line.toX && keepOut.maxX > line.fromX;
          expect(isOver && keepOut.minY < line.y && keepOut.maxY > line.y).toBe(false);
        }
      },
    ),
    { seed: 41 },
  );
});

it('is named as the rule of the bench shows it', () => {
  expect([100, 50].map((mm) => nameCheckLength(mm, 'metric'))).toEqual(['100 mm', '50 mm']);
  expect([100, 50, 25.4, 12.7].map((mm) => nameCheckLength(mm, 'inch'))).toEqual([
    '3 15/16 in',
    '1 31/32 in',
    '1 in',
    '1/2 in',
  ]);
});
