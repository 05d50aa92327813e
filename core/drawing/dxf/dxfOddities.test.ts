import { describe, expect, it } from 'vitest';
import { readDxf } from '#core/drawing/dxf/readDxf.ts';
import { splineThrough } from '#core/drawing/splineThrough.ts';
import { boundContour } from '#core/geometry/box.ts';
import { measureContour } from '#core/geometry/measureContour.ts';
import { startJob } from '#core/job/startJob.ts';

const pairs = (...all: readonly (string | number)[]) => `${all.join('\n')}\n`;
const section = (name: string, inside: string) => pairs(0, 'SECTION', 2, name) + inside + pairs(0, 'ENDSEC');
const mm = section('HEADER', pairs(9, '$INSUNITS', 70, 4));
const file = (entities: string, before = mm) => before + section('ENTITIES', entities) + pairs(0, 'EOF');
const line = (x: number, y: number, toX: number, toY: number, ...more: readonly (string | number)[]) =>
  pairs(0, 'LINE', 8, 'cut', ...more, 10, x, 20, y, 11, toX, 21, toY);
const sizeOf = ({ widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number }) => [
  +widthMm.toFixed(6),
  +heightMm.toFixed(6),
];

describe('what a drawing program keeps in a DXF and does not draw', () => {
  it('lines on a layout sheet, invisible ones and those of Defpoints are left out, counted by name', () => {
    const drawing = readDxf(
      file(
        line(0, 0, 10, 0) +
          line(0, 0, 900, 900, 67, 1) +
          line(0, 0, 900, 900, 60, 1) +
          line(0, 5, 900, 5, 60, 1) +
          pairs(0, 'LINE', 8, 'DefPoints', 10, 0, 20, 0, 11, 500, 21, 0) +
          pairs(0, 'TEXT', 8, 'cut', 10, 1, 20, 1, 40, 2, 1, 'Hull') +
          pairs(0, 'MTEXT', 8, 'cut', 10, 1, 20, 1, 1, 'Keel') +
          line(10, 0, 10, 4),
      ),
    );
    expect(sizeOf(drawing)).toEqual([10, 4]);
    expect(drawing.leftOut).toEqual([
      'invisible lines (2)',
      'lines on DefPoints, which is never drawn',
      'text entities',
      'mtext entities',
      'lines on a layout sheet (paper space)',
    ]);
    // Numbers that jobs have kept go on meaning the same lines.
    expect(drawing.contours.map(({ id }) => id)).toEqual([0, 5]);
  });

  it('what was drawn on a layout sheet alone is read from there', () => {
    expect(sizeOf(readDxf(file(line(0, 0, 30, 20, 67, 1))))).toEqual([30, 20]);
  });

  it('names are the same whatever their case: layers that are off or frozen, blocks', () => {
    const tables = section(
      'TABLES',
      pairs(0, 'LAYER', 2, 'Construction', 62, -3, 70, 0) +
        pairs(0, 'LAYER', 2, 'FROZEN', 62, 3, 70, 1) +
        pairs(0, 'LAYER', 2, 'Cut', 62, 1, 70, 0),
    );
    const blocks = section(
      'BLOCKS',
      pairs(0, 'BLOCK', 2, 'Slot', 10, 0, 20, 0) + line(0, 0, 5, 0) + pairs(0, 'ENDBLK'),
    );
    const drawing = readDxf(
      file(
        pairs(0, 'LINE', 8, 'CONSTRUCTION', 10, 0, 20, 0, 11, 99, 21, 0) +
          pairs(0, 'LINE', 8, 'frozen', 10, 0, 20, 0, 11, 99, 21, 0) +
          pairs(0, 'LINE', 8, 'CUT', 10, 0, 20, 0, 11, 9, 21, 0) +
          pairs(0, 'INSERT', 8, 'cut', 2, 'SLOT', 10, 0, 20, 7),
        mm + tables + blocks,
      ),
    );
    expect(drawing.contours.map(({ layer, strokeColour }) => [layer, strokeColour])).toEqual([
      ['Cut', '#ff0000'],
      ['Cut', '#ff0000'],
    ]);
    expect(drawing.leftOut).toEqual(['layers that are switched off (2)']);
  });
});

describe('where and how large a DXF lies', () => {
  it('is moved to its origin from as far as maps lie, to a thousandth of a mm', () => {
    const [x, y] = [500_123.25, 4_649_776.5];
    const drawing = readDxf(
      file(
        pairs(0, 'LWPOLYLINE', 8, 'plan', 70, 1) +
          [
            [0, 0],
            [0.09, 0],
            [0.09, 0.05],
            [0, 0.05],
          ]
            .map(([dx, dy]) => pairs(10, x + dx!, 20, y + dy!))
            .join(''),
        section('HEADER', pairs(9, '$INSUNITS', 70, 6)),
      ),
    );
    expect(drawing.widthMm).toBeCloseTo(90, 3);
    expect(drawing.heightMm).toBeCloseTo(50, 3);
  });

  it('names no unit but measures in inches: a new job is 25.4 times as large, one from before stays', () => {
    const drawing = readDxf(file(line(0, 0, 4, 3), section('HEADER', pairs(9, '$MEASUREMENT', 70, 0))));
    expect(sizeOf(drawing)).toEqual([4, 3]);
    const bed = { bedWidthMm: 330, bedLengthMm: 480, marginMm: 6 };
    const film = { canKiss: true, isRollFed: false, canCrease: false };
    expect(startJob({ name: 'Tag', format: 'dxf', source: '' }, drawing, bed, film).edits).toEqual([
      { kind: 'scale', factor: 25.4 },
    ]);
    const metric = readDxf(file(line(0, 0, 4, 3), section('HEADER', pairs(9, '$MEASUREMENT', 70, 1))));
    expect([metric.likelyScale, metric.leftOut]).toEqual([undefined, []]);
  });

  it.each([
    ['returns alone', '\r'],
    ['returns and line feeds', '\r\n'],
    ['doubled returns', '\r\r\n'],
  ])('lines end with %s', (_, end) => {
    expect(sizeOf(readDxf(file(line(0, 0, 12, 5)).replaceAll('\n', end)))).toEqual([12, 5]);
  });
});

describe('planes and arcs', () => {
  it('a circle on a plane tilted by 60 degrees is seen half as high', () => {
    const tilt = [210, 0, 220, Math.sin(Math.PI / 3), 230, 0.5];
    const drawing = readDxf(file(pairs(0, 'CIRCLE', 8, 'c', 10, 0, 20, 0, 30, 0, 40, 10, ...tilt)));
    const [a, b] = sizeOf(drawing).sort((one, other) => one - other);
    expect([a, b]).toEqual([expect.closeTo(10, 3), expect.closeTo(20, 3)]);
  });

  it('an ellipse on a plane that faces away turns the other way', () => {
    const quarter = (...more: readonly number[]) =>
      boundContour(
        readDxf(
          file(
            pairs(
              0,
              'ELLIPSE',
              8,
              'c',
              10,
              0,
              20,
              0,
              11,
              10,
              21,
              0,
              40,
              0.5,
              41,
              0,
              42,
              Math.PI / 2,
              ...more,
            ) + line(-20, -20, 20, 20),
          ),
        ).contours[0]!.contour,
      );
    // The frame is 40 mm with the middle at 20, 20; y is turned downwards.
    expect(quarter()).toEqual({ minX: 20, maxX: 30, minY: expect.closeTo(15, 9), maxY: 20 });
    expect(quarter(210, 0, 220, 0, 230, -1)).toEqual({
      minX: 20,
      maxX: 30,
      minY: 20,
      maxY: expect.closeTo(25, 9),
    });
  });

  it.each([
    ['over zero degrees', 350, 10, 20],
    ['past a whole turn', 300, 780, 120],
    ['to below zero', 30, -30, 300],
    ['all around, as 0 to 360', 0, 360, 360],
    ['all around, as 90 to 450', 90, 450, 360],
  ])('an arc %s', (_, from, to, degrees) => {
    const { contours } = readDxf(file(pairs(0, 'ARC', 8, 'c', 10, 0, 20, 0, 40, 10, 50, from, 51, to)));
    expect(measureContour(contours[0]!.contour)).toBeCloseTo((degrees * Math.PI * 10) / 180, 3);
    expect(contours[0]!.contour.isClosed).toBe(degrees === 360);
  });
});

describe('a spline given by points it goes through', () => {
  it('goes through them, and is a cubic where they lie on one whose end directions are given', () => {
    // Evenly spaced along x, the curve y = x³ has no bend to lose; parametrised by distance it is near, and exact at the points.
    const points = [0, 1, 2, 3].map((x) => ({ x: x * 10, y: 5 * Math.sin(x) }));
    const pieces = splineThrough(points, { start: null, end: null }, false);
    expect(pieces.map(([from]) => from)).toEqual(points.slice(0, -1));
    pieces.slice(1).forEach(([from, control], index) => {
      const [, , before, at] = pieces[index]!;
      const slope = (a: typeof from, b: typeof from) => Math.atan2(b.y - a.y, b.x - a.x);
      expect(slope(before, at)).toBeCloseTo(slope(from, control), 9);
    });
  });

  it('closed, runs on smoothly where it began: eight points of a circle are within 0.1 % of it', () => {
    const fits = Array.from({ length: 8 }, (_, k) => [
      10 * Math.cos((k * Math.PI) / 4),
      10 * Math.sin((k * Math.PI) / 4),
    ]);
    const { contours } = readDxf(
      file(
        pairs(0, 'SPLINE', 8, 'c', 70, 1, 71, 3, 74, 8) +
          fits.map(([x, y]) => pairs(11, x!, 21, y!)).join(''),
      ),
    );
    expect(contours[0]!.contour.isClosed).toBe(true);
    expect(Math.abs(measureContour(contours[0]!.contour) / (20 * Math.PI) - 1)).toBeLessThan(0.001);
  });
});
