import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdits } from '#core/checks/applyEdits.ts';
import { boundContour } from '#core/geometry/box.ts';
import { fitLayout } from '#core/job/fitLayout.ts';
import { fitLargest, sizeFactorOf, usableRoom, withSizeFactor } from '#core/job/sizeJob.ts';
import { drawing, sheet } from '#core/tests/exampleScope.ts';
import { listMarks } from '#core/sheet/marks/marks.ts';
import { placedBoxes } from '#core/sheet/layout.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';

const given = { roles: { '|#ff0000': 'through', '|#0000ff': 'kiss' }, lineRoles: {} } as const;
const layout = {
  isWhole: true,
  copies: 1,
  quantities: {},
  turns: 'quarter',
  spacingMm: 2,
  placements: [{ piece: 0, sheet: 0, xMm: 40, yMm: 40, turnDeg: 0 }],
} as const;

describe('a drawing of another size', () => {
  it('has lines as many times larger, and borders in mm as before', () => {
    const border = {
      kind: 'offset',
      lineIds: drawing.contours.map(({ id }) => id),
      byMm: 2,
      isInked: false,
      layer: 'border',
    } as const;
    const edits = withSizeFactor([border], 3);
    expect(sizeFactorOf(edits)).toBe(3);
    const sized = applyEdits(drawing, edits);
    const [plain] = drawing.contours;
    const own = boundContour(plain!.contour);
    const same = sized.contours.find(({ id }) => id === plain!.id);
    const large = boundContour(same!.contour);
    expect(large.maxX - large.minX).toBeCloseTo(3 * (own.maxX - own.minX), 9);
    const around = boundContour(sized.contours.at(-1)!.contour);
    // 60 mm of square with 2 mm around it.
    expect(around.maxX - around.minX).toBeCloseTo(64, 1);
    expect(withSizeFactor(edits, 1)).toEqual([border]);
  });

  it('moves back in where it grew over the edge; pieces by themselves are laid out anew', () => {
    const before = { ...given, format: 'svg' as const, source: '', edits: [], layout, sheet };
    const after = { ...before, edits: withSizeFactor([], 4) };
    const fitted = fitLayout(() => drawing, before, after);
    const pieces = splitPieces(applyEdits(drawing, after.edits), after, true);
    const [box] = placedBoxes(fitted, pieces, 0);
    expect(box!.minX).toBeGreaterThanOrEqual(sheet.marginMm - 1e-9);
    expect(box!.maxX - box!.minX).toBeCloseTo(80, 6);
    const apart = { ...before, layout: { ...layout, isWhole: false } };
    expect(fitLayout(() => drawing, apart, { ...apart, edits: after.edits }).placements).toEqual([]);
  });
});

describe('as large as fits', () => {
  it('fills the room in one direction and reaches over it in none, turned where that is larger (seeded)', () => {
    const side = fc.double({ min: 1, max: 500, noNaN: true });
    fc.assert(
      fc.property(side, side, side, side, (widthMm, heightMm, roomWidth, roomHeight) => {
        const room = { widthMm: roomWidth, heightMm: roomHeight };
        const { factor, isTurned } = fitLargest({ widthMm, heightMm }, room);
        const [wide, high] = isTurned ? [heightMm, widthMm] : [widthMm, heightMm];
        expect(wide * factor).toBeLessThanOrEqual(roomWidth * (1 + 1e-12));
        expect(high * factor).toBeLessThanOrEqual(roomHeight * (1 + 1e-12));
        expect(Math.max((wide * factor) / roomWidth, (high * factor) / roomHeight)).toBeCloseTo(1, 9);
      }),
      { seed: 7 },
    );
  });

  it.each(['threeCorners', 'fourCorners'] as const)('keeps clear of every mark (%s)', (scheme) => {
    const marks = listMarks({ scheme, shape: 'disc', lengthMm: 6, thicknessMm: 1, insetMm: 12 }, sheet);
    const room = usableRoom({ sheet, printArea: null, marks });
    expect((room.maxX - room.minX) * (room.maxY - room.minY)).toBeGreaterThan(
      0.6 * sheet.widthMm * sheet.heightMm,
    );
    for (const { keepOut } of marks) {
      const isClear =
        keepOut.maxX <= room.minX ||
        keepOut.minX >= room.maxX ||
        keepOut.maxY <= room.minY ||
        keepOut.minY >= room.maxY;
      expect(isClear).toBe(true);
    }
    const printArea = { minX: 20, minY: 20, maxX: 100, maxY: 100 };
    expect(usableRoom({ sheet, printArea, marks })).toEqual(printArea);
  });
});
