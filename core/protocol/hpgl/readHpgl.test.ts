import { startOf } from '#core/geometry/contour.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { AppError } from '#core/errors/appError.ts';
import { readHpgl } from '#core/protocol/hpgl/readHpgl.ts';
import { boundContour } from '#core/geometry/box.ts';
import { measureContour } from '#core/geometry/measureContour.ts';
import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { writeMachineFile } from '#core/protocol/machineFile.ts';
import { plotterFile } from '#core/tests/sampleJob.ts';

const lengths = (text: string) => readHpgl(text).contours.map(({ contour }) => measureContour(contour));

describe('readHpgl', () => {
  it.each([
    ['absolute lines', 'IN;SP1;PU0,0;PD400,0,400,400;', [20]],
    ['relative lines', 'IN;PU100,100;PR;PD400,0;PD0,400;PU;', [20]],
    ['no semicolons', 'IN SP1 PU0,0PD400,0', [10]],
    ['small letters', 'in;pu;pa0 0;pd;pa0 400;', [10]],
    ['a half circle', 'IN;PU400,0;PD;AA0,0,180;', [10 * Math.PI]],
    ['a circle', 'IN;PU400,400;CI200;', [10 * Math.PI]],
    ['rectangles', 'IN;PU0,0;EA400,800;ER40,40;', [60, 4]],
  ])('reads %s (2e-5 of the length)', (_, text, expected) => {
    lengths(text).forEach((length, index) =>
      expect(Math.abs(length - expected[index]!)).toBeLessThan(2e-5 * expected[index]!),
    );
    expect(lengths(text)).toHaveLength(expected.length);
  });

  it('turns y downwards, names pens as layers and line types as dashes', () => {
    const { contours } = readHpgl('IN;SP2;LT2;PU0,0;PD0,400;SP3;LT;PU40,0;PD40,40;');
    expect(contours.map(({ layer, dash }) => [layer, dash])).toEqual([
      ['pen 2', 'type 2'],
      ['pen 3', null],
    ]);
    expect(startOf(contours[0]!.contour).y).toBeCloseTo(10, 9);
    expect(boundContour(contours[1]!.contour).minY).toBeCloseTo(9, 9);
  });

  it.each([
    ['words', 'hello there', /does not begin/],
    ['nothing', '', /no lines to cut/],
    ['a scaled plot', 'IN;SC0,100,0,100;PU0,0;PD1,1;', /scaled by SC/],
    ['figures that are none', 'IN;PU0,0;PD1,2.3.4;', /"1,2.3.4" for figures/],
    ['marks between', 'IN;PU0,0;§;', /is no HPGL instruction/],
  ])('refuses %s', (_, text, message) => {
    expect(() => readHpgl(text)).toThrow(message);
    expect(() => readHpgl(text)).toThrow(AppError);
  });

  it('reads back what we write, to a step of 0.025 mm', () => {
    const coordinate = fc.integer({ min: 0, max: 8000 }).map((value) => value / 40);
    const stroke = fc.array(fc.record({ x: coordinate, y: coordinate }), { minLength: 2, maxLength: 9 });
    fc.assert(
      fc.property(stroke, (points) => {
        fc.pre(measurePolyline(points) > 1);
        const values = { force: 5, exposureMm: 0.3, speed: 10, passes: 1, offsetMm: 0, overcutMm: 0 };
        const text = writeMachineFile([{ values, strokes: [{ points, isTab: false }] }], 200, plotterFile());
        const [line] = readHpgl(text).contours;
        expect(measurePolyline(flattenContour(line!.contour))).toBeCloseTo(measurePolyline(points), 1);
      }),
      { seed: 61, numRuns: 100 },
    );
  });
});

describe('an arc that goes round and round', () => {
  it('is drawn once around and on to where it ends, however many turns it is told', () => {
    const endOf = (degrees: number) => {
      const [line] = readHpgl(`IN;SP1;PA0,0;PD;AA400,0,${degrees};PD800,900;PU;`).contours;
      const points = flattenContour(line!.contour);
      return { points, end: points.at(-2)! };
    };
    const many = endOf(9_999_999_990);
    expect(many.points.length).toBeLessThan(2000);
    const once = endOf(9_999_999_990 % 360);
    // Cubics meet an arc within thousandths of a mm.
    expect(many.end.x).toBeCloseTo(once.end.x, 3);
    expect(many.end.y).toBeCloseTo(once.end.y, 3);
  });
});
