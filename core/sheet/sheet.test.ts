import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { chooseSheet } from '#core/sheet/chooseSheet.ts';
import { boundContour } from '#core/geometry/box.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import { PLAIN_EQUIPMENT } from '#core/station/machine.ts';
import { sampleDesign } from '#core/tests/sampleJob.ts';
import { requireSheet, SHEET_SIZES } from '#core/sheet/sheetSize.ts';

const squareSvg = (widthMm: number, heightMm: number) =>
  `<svg width="${widthMm + 20}mm" height="${heightMm + 20}mm" viewBox="0 0 ${widthMm + 20} ${heightMm + 20}"><rect x="7" y="9" width="${widthMm}" height="${heightMm}" fill="none" stroke="#000"/></svg>`;
const square = (widthMm: number, heightMm: number) =>
  boundContour(readSvg(squareSvg(widthMm, heightMm)).contours[0]!.contour);
const bed = { bedWidthMm: 305, bedLengthMm: 610, marginMm: 6 };
const size = (name: string) => SHEET_SIZES.find((one) => one.name === name)!;

describe('sheet sizes', () => {
  it('are those of ISO 216: each A size is half of the one before, its sides as 1 to √2 (1 mm)', () => {
    for (const [larger, smaller] of [
      ['A3', 'A4'],
      ['A4', 'A5'],
    ] as const) {
      expect(size(larger).widthMm).toBe(size(smaller).heightMm);
      expect(Math.abs(size(larger).heightMm / 2 - size(smaller).widthMm)).toBeLessThanOrEqual(1);
      expect(Math.abs(size(larger).widthMm * Math.SQRT2 - size(larger).heightMm)).toBeLessThanOrEqual(1);
    }
  });

  it('are those of ANSI/ASME Y14.1 in inches: Letter 8.5 x 11, Ledger 11 x 17', () => {
    expect(size('Letter').widthMm).toBeCloseTo(215.9, 9);
    expect(size('Letter').heightMm).toBeCloseTo(279.4, 9);
    expect(size('Ledger').widthMm).toBeCloseTo(279.4, 9);
    expect(size('Ledger').heightMm).toBeCloseTo(431.8, 9);
  });

  it.each([
    [{ widthMm: 0, heightMm: 100, marginMm: 0 }],
    [{ widthMm: 100, heightMm: 100, marginMm: 50 }],
    [{ widthMm: 100, heightMm: 100, marginMm: -1 }],
    [{ widthMm: Number.NaN, heightMm: 100, marginMm: 0 }],
  ])('refuse %j, which leaves nothing to cut', (sheet) => {
    expect(() => requireSheet({ name: 'odd', ...sheet })).toThrow(/leaves nothing to cut/);
  });
});

describe('chooseSheet', () => {
  it('takes the smallest that fits, with the machine’s rim kept free', () => {
    expect(chooseSheet(square(130, 190), bed).sheet.name).toBe('A5');
    expect(chooseSheet(square(137, 199), bed).sheet.name).not.toBe('A5');
    expect(chooseSheet(square(190, 270), bed).sheet.name).toBe('A4');
  });

  it('takes the largest the bed takes when none fits, and never one that the bed does not', () => {
    expect(chooseSheet(square(900, 900), bed).sheet.widthMm).toBeLessThanOrEqual(305);
    const small = { bedWidthMm: 100, bedLengthMm: 5000, marginMm: 5 };
    expect(chooseSheet(square(50, 50), small).sheet).toMatchObject({
      name: 'bed',
      widthMm: 100,
      heightMm: 1000,
    });
  });
});

describe('placePieces', () => {
  it('moves the lines and changes nothing else, for any place (1e-9)', () => {
    const place = fc.record({
      xMm: fc.double({ min: -300, max: 300, noNaN: true }),
      yMm: fc.double({ min: -300, max: 300, noNaN: true }),
    });
    const sheet = { name: 'A4', widthMm: 210, heightMm: 297, marginMm: 10 };
    fc.assert(
      fc.property(place, (at) => {
        const design = sampleDesign(squareSvg(60, 40), { '|#000000': 'kiss' }, at, { sheet });
        const { box, over, isInside, lines } = layOutJob(design, PLAIN_EQUIPMENT).sheets[0]!;
        expect(box!.maxX - box!.minX).toBeCloseTo(60, 9);
        expect(boundContour(lines[0]!.contour).minX).toBeCloseTo(at.xMm, 9);
        expect(isInside).toBe(at.xMm >= 10 && at.yMm >= 10 && at.xMm + 60 <= 200 && at.yMm + 40 <= 287);
        expect(over.left > 0).toBe(at.xMm < 10);
        expect(over.bottom).toBeCloseTo(Math.max(0, at.yMm + 40 - 287), 6);
      }),
      { seed: 31, numRuns: 80 },
    );
  });
});
