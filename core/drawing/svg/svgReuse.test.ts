import { describe, expect, it } from 'vitest';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { readStyleSheet } from '#core/drawing/svg/svgStyleSheet.ts';
import { boundContour } from '#core/geometry/box.ts';

const svg = (inside: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100mm" height="100mm" viewBox="0 0 100 100">${inside}</svg>`;
const boxes = (inside: string) => readSvg(svg(inside)).contours.map(({ contour }) => boundContour(contour));

describe('reused symbols and nested drawings', () => {
  it('draws a shape where it is used, moved and turned', () => {
    const [box] = boxes(
      '<defs><rect id="r" width="10" height="4"/></defs><use href="#r" x="5" y="6" transform="translate(1 2)"/>',
    );
    expect(box).toEqual({ minX: 6, minY: 8, maxX: 16, maxY: 12 });
  });

  it('fits a symbol with a viewBox into the size it is used at', () => {
    const [box] = boxes(
      '<symbol id="s" viewBox="0 0 20 20"><rect width="20" height="20"/></symbol><use xlink:href="#s" x="10" y="10" width="40" height="20"/>',
    );
    expect(box).toEqual({ minX: 20, minY: 10, maxX: 40, maxY: 30 });
  });

  it('takes what is drawn before it is defined, symbols in symbols, and the look of the place of use', () => {
    const drawing = readSvg(
      svg(`<g stroke="#f00" fill="none"><use href="#b"/></g>
        <defs><g id="b"><use href="#a" x="3"/></g><path id="a" d="M0 0H4"/></defs>`),
    );
    expect(drawing.contours).toHaveLength(1);
    expect(drawing.contours[0]).toMatchObject({ strokeColour: '#ff0000', fillColour: null });
    expect(boundContour(drawing.contours[0]!.contour).minX).toBe(3);
  });

  it('reads a nested drawing with a frame and percentages of its own', () => {
    const [box] = boxes(
      '<svg x="10" y="20" width="50" height="50" viewBox="0 0 10 10"><rect width="50%" height="100%"/></svg>',
    );
    expect(box).toEqual({ minX: 10, minY: 20, maxX: 35, maxY: 70 });
  });

  it('refuses a symbol within itself, with the line', () => {
    const own = svg('<g id="a"><path d="M0 0H1"/><use href="#a"/></g>');
    expect(() => readSvg(own)).toThrow(/line 1: symbol "#a" stands within itself/);
  });

  it('refuses symbols that double and double', () => {
    const doubling = Array.from(
      { length: 22 },
      (_, at) => `<g id="s${at + 1}"><use href="#s${at}"/><use href="#s${at}"/></g>`,
    ).join('');
    expect(() =>
      readSvg(svg(`<defs><path id="s0" d="M0 0H1"/>${doubling}</defs><use href="#s22"/>`)),
    ).toThrow(/too much work to read/);
  });

  it('says of a symbol that is not there', () => {
    expect(readSvg(svg('<path d="M0 0H1"/><use href="other.svg#x"/>')).leftOut).toEqual([
      'reused symbols that are not in the file',
    ]);
  });
});

describe('style sheets', () => {
  const look = (inside: string) => {
    const { strokeColour, fillColour, dash } = readSvg(svg(inside)).contours[0]!;
    return [strokeColour, fillColour, dash];
  };

  it('go by name, class and id, the stronger over the weaker, the later over the earlier', () => {
    const css =
      '<style>path{stroke:red;fill:none} .c{stroke:lime} #i{stroke:blue} .c{stroke-dasharray:4,2}</style>';
    expect(look(`${css}<path d="M0 0H9"/>`)).toEqual(['#ff0000', null, null]);
    expect(look(`${css}<path class="x c" d="M0 0H9"/>`)).toEqual(['#00ff00', null, '4 2']);
    expect(look(`${css}<path id="i" class="c" d="M0 0H9"/>`)).toEqual(['#0000ff', null, '4 2']);
  });

  it('win over attributes and lose to the style attribute', () => {
    const css = '<style><![CDATA[/* cut */ .c { stroke: red !important; }]]></style>';
    expect(look(`${css}<path class="c" stroke="blue" d="M0 0H9"/>`)[0]).toBe('#ff0000');
    expect(look(`${css}<path class="c" style="stroke:#00f" d="M0 0H9"/>`)[0]).toBe('#0000ff');
  });

  it('hide what they say is not displayed, and show again what is visible within the invisible', () => {
    const drawing = readSvg(
      svg(`<style>.no{display:none}</style><g class="no"><path d="M0 0H9"/></g>
        <g visibility="hidden"><path d="M0 0H8"/><path visibility="visible" d="M0 0H7"/></g>`),
    );
    expect(drawing.contours.map(({ contour }) => boundContour(contour).maxX)).toEqual([7]);
  });

  it('leave rules about neighbours and states alone, and say so', () => {
    const sheet = readStyleSheet('g > path, .a:hover, .b { stroke: red } @media print { .c { fill: red } }');
    expect(sheet).toMatchObject({ unread: 2, count: 1 });
    expect(sheet.byClass.get('b')).toMatchObject([{ classes: ['b'] }]);
    const drawing = readSvg(svg('<style>g path{stroke:red}</style><path d="M0 0H1"/>'));
    expect(drawing.leftOut.join()).toMatch(/neighbours/);
  });
});

describe('pictures and clipping', () => {
  it('keeps a picture of the file as art at its place, and none from outside', () => {
    const picture = 'data:image/png;base64,iVBORw0KGgo=';
    const drawing = readSvg(
      svg(
        `<image x="10" y="20" width="30" height="40" href="${picture}"/><image width="1" height="1" href="http://x/y.png"/>`,
      ),
    );
    expect(drawing.images).toMatchObject([{ data: picture, toMm: [30, 0, 0, 40, 10, 20] }]);
    expect(drawing.leftOut.join()).toMatch(/outside the file/);
  });

  it('takes clipped lines whole and says so', () => {
    const drawing = readSvg(
      svg('<clipPath id="k"><rect width="2" height="2"/></clipPath><path clip-path="url(#k)" d="M0 0H9"/>'),
    );
    expect(boundContour(drawing.contours[0]!.contour).maxX).toBe(9);
    expect(drawing.leftOut.join()).toMatch(/clipping/);
  });

  it('tells how far it is', () => {
    const shares: number[] = [];
    readSvg(svg('<path d="M0 0H1"/>'.repeat(20_000)), (share) => shares.push(share));
    expect(shares.length).toBeGreaterThan(2);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
  });
});
