import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { readSvgLength } from '#core/drawing/svg/svgLength.ts';
import { readSvgPath } from '#core/drawing/svg/svgPath.ts';
import { readCoordinate } from '#core/drawing/svg/svgShape.ts';
import { readSvgTransform } from '#core/drawing/svg/svgTransform.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import { mapPoint } from '#core/geometry/affine.ts';
import { boundContour } from '#core/geometry/box.ts';
import { measureContour } from '#core/geometry/measureContour.ts';

const figure = fc.integer({ min: -400, max: 400 }).map((value) => value / 8);
const point = fc.tuple(figure, figure);

/** Random path data with lines and both curves, as an array of drawn commands. */
const pathData = fc
  .array(
    fc.oneof(
      point.map(([x, y]) => `L${x} ${y}`),
      fc.tuple(point, point).map(([c, p]) => `Q${c.join(' ')} ${p.join(' ')}`),
      fc.tuple(point, point, point).map(([c, d, p]) => `C${c.join(' ')} ${d.join(' ')} ${p.join(' ')}`),
    ),
    { minLength: 1, maxLength: 8 },
  )
  .map((commands) => `M3 4 ${commands.join(' ')}`);

const lengthOf = (data: string) =>
  readSvgPath(data).reduce((sum, contour) => sum + measureContour(contour), 0);

describe('path data, at random', () => {
  it('written and read again is the same path (1e-6 of its length)', () => {
    fc.assert(
      fc.property(pathData, (data) => {
        const [contour] = readSvgPath(data);
        fc.pre(contour !== undefined);
        const again = readSvgPath(writePathData(contour!));
        expect(again).toHaveLength(1);
        expect(measureContour(again[0]!)).toBeCloseTo(measureContour(contour!), 2);
      }),
      { seed: 41, numRuns: 120 },
    );
  });

  it('is as long relative as absolute, and whatever stands between its figures', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 2, maxLength: 6 }), (points) => {
        const [first, ...rest] = points;
        const absolute = `M${first!.join(' ')}${rest.map((one) => `L${one.join(' ')}`).join('')}`;
        let at = first!;
        const relative = rest.map((one) => {
          const step = `l${one[0] - at[0]},${one[1] - at[1]}`;
          at = one;
          return step;
        });
        const odd = absolute.replaceAll(' ', '\n,\t').replaceAll('L', ' L ');
        expect(lengthOf(`M${first!.join(' ')}${relative.join('')}`)).toBeCloseTo(lengthOf(absolute), 6);
        expect(lengthOf(odd)).toBeCloseTo(lengthOf(absolute), 9);
      }),
      { seed: 42, numRuns: 80 },
    );
  });

  it('closed ends where it began, and is longer by the way back', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 2, maxLength: 6 }), (points) => {
        const open = `M0 0${points.map((one) => `L${one.join(' ')}`).join('')}`;
        const [last] = points.slice(-1);
        expect(lengthOf(`${open}Z`)).toBeCloseTo(lengthOf(open) + Math.hypot(last![0], last![1]), 6);
      }),
      { seed: 43, numRuns: 60 },
    );
  });
});

describe('transforms, at random', () => {
  const call = fc.oneof(
    fc.tuple(figure, figure).map(([x, y]) => `translate(${x} ${y})`),
    fc.integer({ min: -180, max: 180 }).map((angle) => `rotate(${angle})`),
    fc
      .tuple(fc.integer({ min: -180, max: 180 }), figure, figure)
      .map(([a, x, y]) => `rotate(${a},${x},${y})`),
    fc.integer({ min: 1, max: 5 }).map((by) => `scale(${by})`),
    fc.integer({ min: -60, max: 60 }).map((angle) => `skewX(${angle})`),
  );

  it('in a list do what they do one in another', () => {
    fc.assert(
      fc.property(fc.array(call, { minLength: 1, maxLength: 4 }), point, (calls, [x, y]) => {
        const together = mapPoint(readSvgTransform(calls.join(' ')), { x, y });
        const apart = calls.reduceRight((at, one) => mapPoint(readSvgTransform(one), at), { x, y });
        expect(together.x).toBeCloseTo(apart.x, 6);
        expect(together.y).toBeCloseTo(apart.y, 6);
      }),
      { seed: 44 },
    );
  });

  it('that only turn and move keep every length, on a group as on the line', () => {
    const turn = fc.tuple(fc.integer({ min: -180, max: 180 }), figure, figure);
    fc.assert(
      fc.property(pathData, turn, (data, [angle, x, y]) => {
        const of = (body: string) =>
          readSvg(
            `<svg width="900mm" height="900mm" viewBox="0 0 900 900" stroke="#000">${body}</svg>`,
          ).contours.reduce((sum, { contour }) => sum + measureContour(contour), 0);
        fc.pre(lengthOf(data) > 0.5);
        const path = `<path d="${data}"/>`;
        const moved = `<g transform="translate(${x} ${y})"><g transform="rotate(${angle})">${path}</g></g>`;
        expect(of(moved)).toBeCloseTo(of(path), 4);
      }),
      { seed: 45, numRuns: 40 },
    );
  });
});

describe('lengths', () => {
  it.each([
    ['1in', 25.4],
    ['96px', 25.4],
    ['72pt', 25.4],
    ['6pc', 25.4],
    ['2.54cm', 25.4],
    ['101.6Q', 25.4],
    ['25.4', (25.4 * 25.4) / 96],
    [' 1e1mm ', 10],
    ['-.5mm', -0.5],
  ])('%s is %d mm (W3C CSS Values and Units 3, section 6.2)', (text, mm) => {
    expect(readSvgLength(text)).toBeCloseTo(mm, 9);
  });

  it('refuse unknown units and what is none, and leave percentages to whoever knows the whole', () => {
    expect(() => readSvgLength('3 furlong')).toThrow(/unknown unit "furlong"/);
    expect(() => readSvgLength('wide')).toThrow(/is not a length/);
    expect(readSvgLength('50%')).toBeNull();
    expect(readCoordinate('50%', 80)).toBe(40);
    expect(readCoordinate('1in', 80)).toBeCloseTo(96, 9);
  });
});

describe('units and frames of a whole drawing', () => {
  it('scale with the width, whatever the viewBox counts in (1e-6)', () => {
    const size = fc.integer({ min: 10, max: 400 });
    fc.assert(
      fc.property(size, size, (mm, units) => {
        const svg = `<svg width="${mm}mm" height="${mm}mm" viewBox="0 0 ${units} ${units}"><rect x="0" y="0" width="${units / 2}" height="${units / 4}" stroke="#000" fill="none"/></svg>`;
        const box = boundContour(readSvg(svg).contours[0]!.contour);
        expect(box.maxX - box.minX).toBeCloseTo(mm / 2, 6);
        expect(box.maxY - box.minY).toBeCloseTo(mm / 4, 6);
      }),
      { seed: 46, numRuns: 60 },
    );
  });
});
