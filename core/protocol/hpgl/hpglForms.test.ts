import { describe, expect, it } from 'vitest';
import { seededRandom } from '#core/random/seededRandom.ts';
import { decodePolyline } from '#core/protocol/hpgl/encodedPolyline.ts';
import { readHpgl } from '#core/protocol/hpgl/readHpgl.ts';
import { measureContour } from '#core/geometry/measureContour.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';

const lengths = (text: string) =>
  readHpgl(text).contours.map(({ contour }) => +measureContour(contour).toFixed(3));
const sizeOf = (text: string) => {
  const { widthMm, heightMm } = readHpgl(text);
  return [+widthMm.toFixed(3), +heightMm.toFixed(3)];
};

/** A figure of an encoded polyline, written after the reference: the sign in the lowest bit, low digits first. */
function encode(value: number, base: 32 | 64): string {
  let rest = value < 0 ? -2 * value + 1 : 2 * value;
  let text = '';
  for (; rest >= base; rest = Math.floor(rest / base)) text += String.fromCharCode(63 + (rest % base));
  return text + String.fromCharCode((base === 64 ? 191 : 95) + rest);
}

describe('an encoded polyline', () => {
  it('gives back what was encoded, in seven bits and in eight (200 seeded lines)', () => {
    const random = seededRandom(12);
    for (let round = 0; round < 200; round++) {
      const base = random() < 0.5 ? 32 : 64;
      const steps = Array.from({ length: 1 + Math.floor(random() * 9) }, () => ({
        kind: 'step',
        x: Math.floor((random() - 0.5) * 20 ** (1 + 4 * random())),
        y: Math.floor((random() - 0.5) * 20 ** (1 + 4 * random())),
        isAbsolute: random() < 0.3,
        isDown: random() < 0.7,
      }));
      const written = steps.map(
        ({ x, y, isAbsolute, isDown }) =>
          `${isDown ? '' : '<'}${isAbsolute ? '=' : ''}${encode(x, base)}${encode(y, base)}`,
      );
      const read = decodePolyline(`${base === 32 ? '7' : ''}${written.join('')};`);
      expect(read.map((part) => ({ ...part, x: 'x' in part ? part.x + 0 : 0 }))).toEqual(
        steps.map((step) => ({ ...step, x: step.x + 0, y: expect.closeTo(step.y, 9) })),
      );
    }
  });

  it('is drawn with its pens, jumps and fractions', () => {
    const e = (value: number) => encode(value, 32);
    const plot = `IN;SP1;PE7<=${e(0)}${e(0)}${e(400)}${e(0)}:${e(2)}<${e(0)}${e(400)}>${e(2)}${e(1600)}${e(0)};`;
    const { contours } = readHpgl(plot);
    expect(contours.map(({ layer }) => layer)).toEqual(['pen 1', 'pen 2']);
    expect(lengths(plot)).toEqual([10, 10]);
  });

  it('is refused where a step has no second figure', () => {
    expect(() => readHpgl('IN;PE7_;')).toThrow(/encoded polyline cannot be read at its character 3/);
  });
});

describe('a plot that is scaled', () => {
  it.each([
    ['to its scaling points', 'IP0,0,4000,2000;SC0,100,0,100;PU0,0;PD50,0,50,50;', [50, 25]],
    ['evenly, in the middle', 'IP0,0,4000,2000;SC0,100,0,100,1;PU0,0;PD50,0,50,50;', [25, 25]],
    ['by factors, whatever the page', 'SC0,40,0,-40,2;PU0,0;PD12.5,0,12.5,8;', [12.5, 8]],
    ['and no longer', 'SC0,40,0,40,2;PU0,0;PD10,0;SC;PD800,0;', [20, 0.1]],
    ['on its side', 'RO90;PU0,0;PD400,0;PD400,80;', [2, 10]],
  ])('%s', (_, inside, size) => expect(sizeOf(`IN;${inside}`)).toEqual(size));

  it('turns circles into what they become on paper', () => {
    const [circle] = readHpgl('IN;IP0,0,4000,2000;SC0,100,0,100;PU50,50;CI10;').contours;
    const points = flattenContour(circle!.contour);
    const wide = Math.max(...points.map(({ x }) => x)) - Math.min(...points.map(({ x }) => x));
    const tall = Math.max(...points.map(({ y }) => y)) - Math.min(...points.map(({ y }) => y));
    expect([wide, tall]).toEqual([expect.closeTo(20, 2), expect.closeTo(10, 2)]);
  });

  it('to a page it does not name is refused with what to do', () => {
    expect(() => readHpgl('IN;SC0,100,0,100;PU0,0;PD50,0;')).toThrow(/no IP.*save it in plotter units/);
    expect(() => readHpgl('IN;IP0,0,0,0;SC0,100,0,100;PU0,0;PD50,0;')).toThrow(/no size/);
  });
});

describe('what stands around and between the lines', () => {
  it.each([
    [
      'headers of printers',
      '\u001b%-12345X@PJL JOB NAME="hull"\r\n@PJL ENTER LANGUAGE=HPGL2\r\n\u001bE\u001b&l1o2E\u001b*p300x400Y\u001b%0BIN;PU0,0;PD400,0;\u001b%0A',
    ],
    [
      'what the interface is told',
      '\u001b.(;\u001b.I81;;17:\u001b.N;19:IN;\u001b.@;0:PU0,0;\u001b.Y\u001b.B;PD400,0;\u001b.)',
    ],
    ['comments, with letters and semicolons', 'IN;CO "PU; deck PD9,9";PU0,0;CO x;PD400,0;'],
    ['labels that end in a sign of their own', 'IN;DT#,1;PU0,0;LBPD 900,900;#PD400,0;'],
    ['labels that end as they always do', 'IN;DT*;DT;PU0,0;LBhull*\u0003PD400,0;'],
    ['names of pictures', 'BP1,"PD9,9;";IN;PU0,0;PD400,0;'],
  ])('%s: only the line is drawn', (_, text) => expect(lengths(text)).toEqual([10]));

  it('is counted by name where it is left out, and the rest is read', () => {
    const { leftOut } = readHpgl('IN;PU0,0;PD400,0;LBa\u0003LBb\u0003ZZ1;ZZ2;QQ;PD400,40;');
    expect(leftOut).toEqual([
      'text (turn it into outlines first) (2)',
      'ZZ instructions (2)',
      'QQ instructions',
    ]);
  });

  it('a window lets through what lies in it', () => {
    const plot = 'IN;IW0,0,400,400;PU0,200;PD800,200;PU0,900;PD400,900;PU0,0;PD400,0;IW;PU0,800;PD800,800;';
    expect(lengths(plot)).toEqual([10, 10, 20]);
    expect(readHpgl(plot).leftOut).toEqual([
      'ends of lines outside the window of the plot',
      'lines outside the window of the plot',
    ]);
  });
});

describe('shapes', () => {
  it('polygons are closed, each part by itself, and drawn once though filled and edged', () => {
    const plot = 'IN;PU0,0;PM0;PD400,0,400,400;PM1;PU100,100;PD200,100,200,200;PM2;FP;EP;PU0,800;PD400,800;';
    const { contours } = readHpgl(plot);
    expect(contours.map(({ contour }) => contour.isClosed)).toEqual([true, true, false]);
    expect(lengths(plot)[0]).toBeCloseTo(20 + Math.hypot(10, 10), 3);
  });

  it.each([
    ['an arc through a point', 'PU0,0;PD;AT200,200,400,0;', 5 * Math.PI],
    ['the same to the right and relative', 'PU0,0;PD;RT200,-200,400,0;', 5 * Math.PI],
    ['a straight one', 'PU0,0;PD;AT200,0,400,0;', 10],
    ['a quarter of a pie', 'PU0,0;EW400,0,90;', 20 + 5 * Math.PI],
    ['a filled rectangle', 'PU0,0;RR400,200;', 30],
    ['a curve that is a line', 'PU0,0;PD;BZ100,0,300,0,400,0;', 10],
    ['a relative one', 'PU400,400;PD;BR0,100,0,300,0,400;', 10],
  ])('%s', (_, inside, length) => {
    expect(Math.abs(lengths(`IN;${inside}`)[0]! - length)).toBeLessThan(2e-3);
  });
});
