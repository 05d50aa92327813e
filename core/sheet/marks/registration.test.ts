import fc from 'fast-check';
import { Matrix, solve } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { IDENTITY, mapPoint, type Affine } from '#core/geometry/affine.ts';
import { fitSimilarity } from '#core/geometry/fitSimilarity.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { USUAL_ERROR } from '#core/sheet/edgeRisk.ts';
import {
  fitRegistration,
  invertSimilarity,
  judgeRegistration,
  type RegistrationSheet,
} from '#core/sheet/marks/registration.ts';
import {
  CARD_CORNERS,
  CARD_REACH_MM,
  drawVerniers,
  placeVerniers,
  readCard,
  type CardReading,
} from '#core/sheet/marks/registrationCard.ts';

const CORNERS: readonly PointMm[] = [
  { x: 20, y: 20 },
  { x: 190, y: 20 },
  { x: 20, y: 277 },
  { x: 190, y: 277 },
];
const SEED = 41;

const tenths = fc.integer({ min: -3000, max: 3000 }).map((value) => value / 10);
const point = fc.record({ x: tenths, y: tenths });

function turned(angle: number, scale: number, dx: number, dy: number): Affine {
  const [cos, sin] = [scale * Math.cos(angle), scale * Math.sin(angle)];
  return [cos, sin, -sin, cos, dx, dy];
}

/** A sheet on which the cut lands where `truth` carries the print, read without error. */
function sheetOf(truth: Affine, corrected: Affine = IDENTITY): RegistrationSheet {
  return {
    corrected,
    readings: CORNERS.map((at) => {
      const sent = mapPoint(corrected, at);
      const landed = mapPoint(truth, sent);
      return { at, shift: { x: landed.x - at.x, y: landed.y - at.y } };
    }),
  };
}

describe('fitSimilarity', () => {
  it('finds turn, scale and shift exactly where they are all there is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.3, max: 0.3, noNaN: true }),
        fc.double({ min: 0.9, max: 1.1, noNaN: true }),
        point,
        (angle, scale, shift) => {
          const truth = turned(angle, scale, shift.x, shift.y);
          const fitted = fitSimilarity(
            CORNERS,
            CORNERS.map((corner) => mapPoint(truth, corner)),
          );
          expect(fitted.rotationRad).toBeCloseTo(angle, 9);
          expect(fitted.scale).toBeCloseTo(scale, 9);
          expect(fitted.restMm).toBeLessThan(1e-9);
        },
      ),
      { seed: SEED },
    );
  });

  it('leaves what a plain least-squares solution leaves (ml-matrix 6, QR of the linear system)', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(point, point), { minLength: 3, maxLength: 12 }), (pairs) => {
        const from = pairs.map(([a]) => a);
        const to = pairs.map(([, b]) => b);
        fc.pre(new Set(from.map(({ x, y }) => `${x}/${y}`)).size > 1);
        // x' = c x - s y + e and y' = s x + c y + f are linear in c, s, e, f.
        const rows = from.flatMap(({ x, y }) => [
          [x, -y, 1, 0],
          [y, x, 0, 1],
        ]);
        const wanted = to.flatMap(({ x, y }) => [[x], [y]]);
        const matrix = new Matrix(rows);
        const rest = matrix.mmul(solve(matrix, new Matrix(wanted))).sub(new Matrix(wanted));
        const expected = Math.sqrt(rest.to1DArray().reduce((sum, one) => sum + one * one, 0) / from.length);
        expect(fitSimilarity(from, to).restMm).toBeCloseTo(expected, 6);
      }),
      { seed: SEED },
    );
  });

  it('refuses a single point, unequal counts, and points in one place', () => {
    expect(() => fitSimilarity([{ x: 1, y: 1 }], [{ x: 1, y: 1 }])).toThrow(/at least two/);
    expect(() => fitSimilarity(CORNERS, CORNERS.slice(1))).toThrow(/matched/);
    const same = [CORNERS[0], CORNERS[0]] as PointMm[];
    expect(() => fitSimilarity(same, same)).toThrow(/one place/);
  });
});

describe('registration of a machine', () => {
  it('corrects what it fitted: cuts then land on the print within a hundredth', () => {
    const truth = turned(0.004, 1.002, 0.6, -0.3);
    const fitted = fitRegistration([sheetOf(truth)]);
    const correction = invertSimilarity(fitted);
    for (const corner of CORNERS) {
      const landed = mapPoint(truth, mapPoint(correction, corner));
      expect(Math.hypot(landed.x - corner.x, landed.y - corner.y)).toBeLessThan(0.01);
    }
  });

  it('finds the same truth from a sheet that was cut under a correction', () => {
    const truth = turned(0.003, 0.999, 0.5, 0.2);
    const plain = fitRegistration([sheetOf(truth)]);
    const again = fitRegistration([sheetOf(truth, invertSimilarity(plain))]);
    // Shifts add to first order only: 0.5 mm turned by 3 mrad is off by a few thousandths.
    expect(again.shift.x).toBeCloseTo(plain.shift.x, 2);
    expect(again.shift.y).toBeCloseTo(plain.shift.y, 2);
    expect(again.rotationRad).toBeCloseTo(plain.rotationRad, 4);
  });

  it('believes the habit until a sheet was read, and the sheets more the more there are', () => {
    expect(judgeRegistration([], IDENTITY)).toEqual(USUAL_ERROR);
    const random = seededRandom(5);
    const shift = () => 0.4 * (random() + random() + random() - 1.5);
    const sheets = Array.from({ length: 30 }, () => sheetOf([1, 0, 0, 1, 0.5 + shift(), shift()]));
    const few = judgeRegistration(sheets.slice(0, 2), IDENTITY);
    const many = judgeRegistration(sheets, IDENTITY);
    // Three uniforms of ±0.2 mm have a spread of 0.2 mm; the habit's 0.65 mm counts like three sheets.
    expect(many.sdMm).toBeGreaterThan(0.15);
    expect(many.sdMm).toBeLessThan(0.32);
    expect(few.sdMm).toBeGreaterThan(many.sdMm);
    expect(many.meanXMm).toBeCloseTo(0.5, 1);
    expect(many.source).toBe('measured');
  });

  it('takes the steady part off once the file corrects it', () => {
    const sheets = [sheetOf([1, 0, 0, 1, 0.8, -0.4]), sheetOf([1, 0, 0, 1, 0.8, -0.4])];
    const correction = invertSimilarity(fitRegistration(sheets));
    const after = judgeRegistration(sheets, correction);
    expect(after.meanXMm).toBeCloseTo(0, 6);
    expect(after.meanYMm).toBeCloseTo(0, 6);
  });

  it('takes a sheet that was read at one place for a shift alone', () => {
    const one = { at: { x: 105, y: 148 }, shift: { x: 0.4, y: -0.1 } };
    expect(fitRegistration([{ corrected: IDENTITY, readings: [one] }])).toMatchObject({
      shift: { x: 0.4, y: -0.1 },
      scale: 1,
      rotationRad: 0,
    });
  });

  it('refuses a shift no sheet can have', () => {
    const far = { at: { x: 0, y: 0 }, shift: { x: 30, y: 0 } };
    expect(() => fitRegistration([{ corrected: IDENTITY, readings: [far] }])).toThrow(/30.0 mm/);
  });
});

describe('the card', () => {
  const verniers = placeVerniers({ minX: 16, minY: 35, maxX: 194, maxY: 262 });
  const lines = drawVerniers(verniers);

  it('has two rows at each corner that keep to their area and do not meet', () => {
    expect(verniers).toHaveLength(8);
    const all = lines.flatMap(({ points }) => points);
    expect(Math.min(...all.map(({ x }) => x))).toBeGreaterThan(12);
    expect(Math.max(...all.map(({ x }) => x))).toBeLessThan(198);
    const top = verniers.filter(({ axis, corner }) => axis === 'x' && corner.startsWith('top'));
    const [left, right] = top.map(({ at }) => at.x) as [number, number];
    expect(right - left).toBeGreaterThan(2 * 16 * 1.7 + 4);
  });

  it('finds turn, scale and shift of a sheet from what stands at its rows', () => {
    const truth = turned(0.002, 1.004, 0.3, -0.5);
    const shiftAt = (at: PointMm) => {
      const landed = mapPoint(truth, at);
      return { x: landed.x - at.x, y: landed.y - at.y };
    };
    const read = Object.fromEntries(
      CARD_CORNERS.map((corner) => {
        const row = (axis: 'x' | 'y') =>
          verniers.find((one) => one.corner === corner && one.axis === axis)!.at;
        return [corner, { x: shiftAt(row('x')).x, y: shiftAt(row('y')).y }];
      }),
    ) as CardReading;
    const fitted = fitRegistration([{ corrected: IDENTITY, readings: readCard(verniers, read) }]);
    expect(fitted.scale).toBeCloseTo(1.004, 4);
    // A row that reads to the side lies at its corner's height, but not quite at that of its zero: 2 µm over 28 mm.
    expect(fitted.rotationRad).toBeCloseTo(0.002, 4);
    for (const corner of readCard(verniers, read)) {
      const wanted = shiftAt(corner.at);
      expect(Math.hypot(corner.shift.x - wanted.x, corner.shift.y - wanted.y)).toBeLessThan(0.01);
    }
  });

  it('refuses an area in which rows would meet', () => {
    expect(() => placeVerniers({ minX: 0, minY: 0, maxX: 100, maxY: 200 })).toThrow(/121 mm/);
  });

  it('reads any shift in its reach to a tenth: the pair that meets best names it', () => {
    const row = verniers[0] as (typeof verniers)[number];
    const own = drawVerniers([row]);
    const straight = own.filter(({ points: [a, b] }) => a?.x === b?.x);
    const printed = straight.filter(({ role, points }) => role === 'art' && points[1]?.y === row.at.y);
    const cut = straight.filter(({ role }) => role === 'kiss');
    expect(printed).toHaveLength(33);
    expect(cut).toHaveLength(33);
    for (let tenths = -16; tenths <= 16; tenths++) {
      const gaps = printed.map(({ points }, index) =>
        Math.abs(
          ((cut[index] as (typeof cut)[number]).points[0] as PointMm).x +
            tenths / 10 -
            (points[0] as PointMm).x,
        ),
      );
      expect(gaps.indexOf(Math.min(...gaps)) - 16).toBe(tenths);
    }
    expect(CARD_REACH_MM).toBeCloseTo(1.6, 9);
  });
});
