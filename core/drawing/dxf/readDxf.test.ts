import { segmentsOf, startOf } from '#core/geometry/contour.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { AppError } from '#core/errors/appError.ts';
import { readDxf } from '#core/drawing/dxf/readDxf.ts';
import { sniffFormat } from '#core/artwork/readDrawing.ts';
import { splineToCubics } from '#core/drawing/splineToCubics.ts';
import { boundContour } from '#core/geometry/box.ts';
import { measureContour } from '#core/geometry/measureContour.ts';

const pairs = (...all: readonly (string | number)[]) => `${all.join('\n')}\n`;
const file = (entities: string, units = 4, more = '') =>
  pairs(0, 'SECTION', 2, 'HEADER', 9, '$INSUNITS', 70, units, 0, 'ENDSEC') +
  more +
  pairs(0, 'SECTION', 2, 'ENTITIES') +
  entities +
  pairs(0, 'ENDSEC', 0, 'EOF');
const only = (entities: string, units?: number) => readDxf(file(entities, units)).contours[0]!;

describe('readDxf', () => {
  it.each([
    ['a line', pairs(0, 'LINE', 8, 'cut', 10, 0, 20, 0, 11, 3, 21, 4), 5],
    ['a circle', pairs(0, 'CIRCLE', 8, 'cut', 10, 5, 20, 5, 40, 5), 10 * Math.PI],
    [
      'an arc over zero degrees',
      pairs(0, 'ARC', 8, 'cut', 10, 0, 20, 0, 40, 8, 50, 300, 51, 60),
      (8 * 2 * Math.PI) / 3,
    ],
    [
      'half a circle as a bulge of 1',
      pairs(0, 'LWPOLYLINE', 8, 'cut', 70, 0, 10, 0, 20, 0, 42, 1, 10, 10, 20, 0),
      5 * Math.PI,
    ],
    [
      'an old polyline with corners of its own',
      pairs(0, 'POLYLINE', 8, 'cut', 70, 1) +
        [
          [0, 0],
          [10, 0],
          [10, 10],
        ]
          .map(([x, y]) => pairs(0, 'VERTEX', 8, 'cut', 10, x!, 20, y!))
          .join('') +
        pairs(0, 'SEQEND'),
      20 + Math.SQRT2 * 10,
    ],
    [
      'an ellipse that is round',
      pairs(0, 'ELLIPSE', 8, 'c', 10, 0, 20, 0, 11, 0, 21, 4, 40, 1, 41, 0, 42, 6.283185307),
      8 * Math.PI,
    ],
  ])('reads %s at its true length (2e-5 of it)', (_, entities, length) => {
    const measured = measureContour(only(entities).contour);
    expect(Math.abs(measured - length)).toBeLessThan(2e-5 * length);
  });

  it('turns y downwards and frames the drawing by its lines', () => {
    const drawing = readDxf(file(pairs(0, 'LINE', 8, 'a', 10, 100, 20, 50, 11, 110, 21, 70)));
    expect([drawing.widthMm, drawing.heightMm]).toEqual([10, 20]);
    expect(segmentsOf(drawing.contours[0]!.contour)[0]!).toMatchObject({
      from: { x: 0, y: 20 },
      to: { x: 10, y: 0 },
    });
  });

  it('turns left when the bulge is positive: it hangs below a line that runs to the right', () => {
    const line = only(pairs(0, 'LWPOLYLINE', 8, 'c', 70, 0, 10, 0, 20, 0, 42, 0.5, 10, 10, 20, 0));
    const box = boundContour(line.contour);
    // y is downwards here, so that what hangs below the chord has the larger y: the start lies at the top.
    expect(startOf(line.contour).y).toBeCloseTo(box.minY, 9);
    expect(box.maxY - box.minY).toBeCloseTo(2.5, 4);
  });

  it.each([
    ['inches', 1, 25.4],
    ['centimetres', 5, 10],
    ['millimetres', 4, 1],
  ])('honours %s', (_, unit, mm) => {
    expect(
      measureContour(only(pairs(0, 'LINE', 8, 'a', 10, 0, 20, 0, 11, 2, 21, 0), unit).contour),
    ).toBeCloseTo(2 * mm, 9);
  });

  it('says that a file without a unit was read as mm', () => {
    expect(readDxf(file(pairs(0, 'LINE', 8, 'a', 10, 0, 20, 0, 11, 2, 21, 0), 0)).leftOut.join()).toMatch(
      /as mm/,
    );
  });

  it('inserts blocks scaled, turned and in rows, with the layer of the place for what is on layer 0', () => {
    const blocks =
      pairs(0, 'SECTION', 2, 'BLOCKS', 0, 'BLOCK', 2, 'star', 10, 1, 20, 0) +
      pairs(0, 'LINE', 8, '0', 10, 1, 20, 0, 11, 2, 21, 0, 0, 'ENDBLK', 0, 'ENDSEC');
    const insert = pairs(
      0,
      'INSERT',
      8,
      'kiss',
      2,
      'star',
      10,
      0,
      20,
      0,
      41,
      3,
      42,
      3,
      50,
      90,
      70,
      2,
      44,
      10,
    );
    const drawing = readDxf(file(insert, 4, blocks));
    expect(drawing.contours.map((line) => [line.layer, measureContour(line.contour)])).toEqual([
      ['kiss', 3],
      ['kiss', 3],
    ]);
    expect([drawing.widthMm, drawing.heightMm].map((mm) => Math.round(mm * 1e6) / 1e6)).toEqual([0.1, 13]);
  });

  it('refuses blocks within themselves', () => {
    const blocks =
      pairs(0, 'SECTION', 2, 'BLOCKS', 0, 'BLOCK', 2, 'a', 10, 0, 20, 0) +
      pairs(0, 'INSERT', 8, '0', 2, 'a', 10, 0, 20, 0, 0, 'ENDBLK', 0, 'ENDSEC');
    expect(() => readDxf(file(pairs(0, 'INSERT', 8, '0', 2, 'a', 10, 0, 20, 0), 4, blocks))).toThrow(
      /within itself/,
    );
  });

  it('takes colours and line types from the layer, and leaves out layers that are off', () => {
    const layer = (name: string, colour: number, type: string) =>
      pairs(0, 'LAYER', 2, name, 70, 0, 62, colour, 6, type);
    const tables =
      pairs(0, 'SECTION', 2, 'TABLES') +
      layer('cut', 1, 'DASHED') +
      layer('off', -3, 'CONTINUOUS') +
      pairs(0, 'ENDSEC');
    const lines =
      pairs(0, 'LINE', 8, 'cut', 10, 0, 20, 0, 11, 3, 21, 4) +
      pairs(0, 'LINE', 8, 'off', 10, 0, 20, 0, 11, 3, 21, 4) +
      pairs(0, 'LINE', 8, 'cut', 62, 5, 6, 'CONTINUOUS', 10, 0, 20, 0, 11, 3, 21, 4) +
      pairs(0, 'MTEXT', 8, 'cut', 1, 'words');
    const drawing = readDxf(file(lines, 4, tables));
    expect(drawing.contours.map(({ strokeColour, dash }) => [strokeColour, dash])).toEqual([
      ['#ff0000', 'DASHED'],
      ['#0000ff', null],
    ]);
    expect(drawing.leftOut).toEqual(['layers that are switched off', 'mtext entities']);
  });

  it.each([
    ['words', 'once upon a time\nthere was\n', /line 2: "once upon a time" is no group code/],
    ['an empty file', '', /begins with a section/],
    ['the binary form', 'AutoCAD Binary DXF\r\n', /binary form/],
    [
      'figures that are none',
      file(pairs(0, 'LINE', 8, 'a', 10, 'wide', 20, 0, 11, 1, 21, 1)),
      /LINE has "wide"/,
    ],
    ['no lines', file(''), /no lines to cut/],
    ['lines beyond any sheet', file(pairs(0, 'LINE', 8, 'a', 10, 0, 20, 0, 11, 1e9, 21, 1)), /far too large/],
  ])('refuses %s with a reason', (_, text, message) => {
    expect(() => readDxf(text)).toThrow(message);
    expect(() => readDxf(text)).toThrow(AppError);
  });

  it('either reads or refuses any shuffled piece of a file, never breaks', () => {
    const lines = file(
      pairs(0, 'LWPOLYLINE', 8, 'c', 70, 1, 10, 0, 20, 0, 42, 1, 10, 10, 20, 0) +
        pairs(0, 'SPLINE', 71, 3, 40, 0, 40, 0, 10, 1, 20, 1) +
        pairs(0, 'INSERT', 2, 'x'),
    ).split('\n');
    fc.assert(
      fc.property(fc.array(fc.nat(lines.length - 1), { maxLength: 40 }), fc.boolean(), (picks, isCut) => {
        const text = isCut
          ? lines.slice(0, picks.length).join('\n')
          : picks.map((at) => lines[at]).join('\n');
        try {
          readDxf(text);
        } catch (error) {
          expect(error).toBeInstanceOf(AppError);
        }
      }),
      { seed: 51, numRuns: 300 },
    );
  });
});

describe('splineToCubics', () => {
  const points = [
    { x: 0, y: 0 },
    { x: 1, y: 2 },
    { x: 3, y: 3 },
    { x: 4, y: 0 },
    { x: 6, y: 1 },
  ];
  const knots = [0, 0, 0, 0, 1, 2, 2, 2, 2];

  it('splits a cubic into its Bézier pieces, which meet smoothly', () => {
    const pieces = splineToCubics({ degree: 3, knots, points, weights: [] });
    expect(pieces).toHaveLength(2);
    const [[first, , before, joint], [, after, , last]] = pieces as [(typeof pieces)[0], (typeof pieces)[0]];
    expect([first, last]).toEqual([points[0], points[4]]);
    expect(joint.x - before.x).toBeCloseTo(after.x - joint.x, 12);
    expect(joint.y - before.y).toBeCloseTo(after.y - joint.y, 12);
  });

  it('draws the quarter of a circle that weights give within 1e-6 of its radius', () => {
    const quarter = {
      degree: 2,
      knots: [0, 0, 0, 1, 1, 1],
      points: [
        { x: 1, y: 0 },
        { x: 1, y: 1 },
        { x: 0, y: 1 },
      ],
      weights: [1, Math.SQRT1_2, 1],
    };
    for (const [a, b, c, d] of splineToCubics(quarter)) {
      const middle = { x: (a.x + 3 * b.x + 3 * c.x + d.x) / 8, y: (a.y + 3 * b.y + 3 * c.y + d.y) / 8 };
      expect(Math.hypot(middle.x, middle.y)).toBeCloseTo(1, 6);
    }
  });

  it('gives nothing where counts do not fit', () => {
    expect(splineToCubics({ degree: 3, knots: [0, 1], points, weights: [] })).toEqual([]);
  });
});

describe('sniffFormat', () => {
  it.each([
    ['<?xml version="1.0"?><svg/>', 'x', 'svg'],
    ['  0\r\nSECTION\r\n', 'x.svg', 'dxf'],
    ['999\nmade by hand\n0\nSECTION\n', 'x', 'dxf'],
    ['IN;SP1;PU0,0;', 'x', 'hpgl'],
    ['\u001b.(;IN;', 'x', 'hpgl'],
    ['no idea', 'x.plt', 'hpgl'],
    ['no idea', 'x.txt', null],
  ])('%j of %s is %s', (text, name, format) => {
    expect(sniffFormat(text, name)).toBe(format);
  });
});
