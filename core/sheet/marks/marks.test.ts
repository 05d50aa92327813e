import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boundPoints } from '#core/geometry/box.ts';
import { areaOfRings } from '#core/geometry/clip.ts';
import { describeMarks, listMarks, printedMarks } from '#core/sheet/marks/marks.ts';
import { MARK_SHAPES, type MarkScheme } from '#core/station/machine.ts';

const letter = { widthMm: 215.9, heightMm: 279.4 };
const scheme: MarkScheme = {
  scheme: 'fourCorners',
  shape: 'disc',
  lengthMm: 5,
  thicknessMm: 1,
  insetMm: 12,
  alongSide: 3,
  clearMm: 6,
};
const schemes = fc.record({
  scheme: fc.constantFrom('threeCorners' as const, 'fourCorners' as const),
  shape: fc.constantFrom(...MARK_SHAPES, undefined),
  lengthMm: fc.double({ min: 2, max: 20, noNaN: true }),
  thicknessMm: fc.double({ min: 0.3, max: 2, noNaN: true }),
  insetMm: fc.double({ min: 3, max: 20, noNaN: true }),
  alongSide: fc.constantFrom(undefined, 2, 3, 4),
  clearMm: fc.constantFrom(undefined, 0, 3, 8),
});
const sheets = fc.record({
  widthMm: fc.double({ min: 150, max: 600, noNaN: true }),
  heightMm: fc.double({ min: 150, max: 600, noNaN: true }),
});

describe('the marks of a scheme', () => {
  it('stand inside their sheet, as far in as it says, each in its own clear place, whatever shape and number', () => {
    fc.assert(
      fc.property(schemes, sheets, (given, sheet) => {
        const marks = listMarks(given, sheet);
        const corners = given.scheme === 'fourCorners' ? 4 : 3;
        expect(marks).toHaveLength(corners + 2 * ((given.alongSide ?? 2) - 2));
        expect(new Set(marks.map(({ name }) => name)).size).toBe(marks.length);
        const all = boundPoints(marks.flatMap(({ outline }) => outline));
        // Three corners are enough to touch every side.
        expect(all.minX).toBeCloseTo(given.insetMm, 6);
        expect(all.minY).toBeCloseTo(given.insetMm, 6);
        expect(sheet.widthMm - all.maxX).toBeCloseTo(given.insetMm, 6);
        expect(sheet.heightMm - all.maxY).toBeCloseTo(given.insetMm, 6);
        for (const { outline, keepOut } of marks) {
          const ink = boundPoints(outline);
          // Towards the edge of the sheet there is no more room than the inset.
          const clear = Math.min(given.clearMm ?? 5, given.insetMm);
          const rims = [ink.minX - keepOut.minX, keepOut.maxX - ink.maxX, ink.minY - keepOut.minY];
          for (const rim of [...rims, keepOut.maxY - ink.maxY]) expect(rim).toBeGreaterThan(clear - 1e-6);
        }
      }),
      { seed: 16 },
    );
  });

  it('have the ink of their shape: a disc, two bars at an angle, a cross', () => {
    const inkOf = (shape: MarkScheme['shape']) =>
      areaOfRings([listMarks({ ...scheme, shape }, letter)[0]!.outline]);
    expect(inkOf('disc')).toBeCloseTo(Math.PI * 2.5 ** 2, 1);
    expect(inkOf('angle')).toBeCloseTo(5 + 4, 2);
    expect(inkOf('cross')).toBeCloseTo(5 + 4, 2);
  });

  it('are what they were before there were shapes: an angle whose outer corner is measured', () => {
    const old: MarkScheme = { scheme: 'threeCorners', lengthMm: 14, thicknessMm: 1, insetMm: 15 };
    const marks = listMarks(old, { widthMm: 210, heightMm: 297 });
    expect(marks.map(({ spot }) => spot)).toEqual([
      { x: 15, y: 15 },
      { x: 195, y: 15 },
      { x: 15, y: 282 },
    ]);
    expect(marks[0]!.keepOut).toEqual({ minX: 0, maxX: 34, minY: 0, maxY: 34 });
    expect(marks[2]!.outline[1]).toEqual({ x: 29, y: 282 });
  });

  it('stand along the long sides, whichever these are', () => {
    const names = (sheet: typeof letter) => listMarks(scheme, sheet).map(({ name }) => name);
    expect(names(letter).slice(4)).toEqual(['left side, 2', 'right side, 2']);
    expect(names({ widthMm: 279.4, heightMm: 215.9 }).slice(4)).toEqual(['top side, 2', 'bottom side, 2']);
    const [, , , , left] = listMarks(scheme, letter);
    expect(left!.spot).toEqual({ x: 14.5, y: letter.heightMm / 2 });
  });

  it('are told in words and to the machine', () => {
    expect(describeMarks(scheme)).toBe('four discs of 5 mm, 12 mm from the edges, 3 along each long side');
    expect(describeMarks({ ...scheme, scheme: 'none' })).toBe('no marks');
    expect(printedMarks(scheme, letter)?.spots[1]).toEqual({ name: 'top right', xMm: 201.4, yMm: 14.5 });
    expect(printedMarks({ ...scheme, scheme: 'none' }, letter)).toBeUndefined();
  });
});
