import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { AppError } from '#core/errors/appError.ts';
import { groupLines } from '#core/drawing/roles/lineRoles.ts';
import { guessRoles, rolesOf } from '#core/drawing/roles/guessRoles.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { readSvgPath } from '#core/drawing/svg/svgPath.ts';
import { boundContour } from '#core/geometry/box.ts';
import { measureContour } from '#core/geometry/measureContour.ts';

const svg = (inside: string, attributes = 'width="100mm" height="100mm" viewBox="0 0 100 100"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inside}</svg>`;
const firstBox = (text: string) => boundContour(readSvg(text).contours[0]!.contour);

describe('readSvg', () => {
  it.each([
    ['mm', 'width="50mm" height="50mm" viewBox="0 0 100 100"', 50],
    ['inches', 'width="2in" height="2in" viewBox="0 0 100 100"', 50.8],
    ['points', 'width="72pt" height="72pt" viewBox="0 0 100 100"', 25.4],
    ['pixels at 96 to the inch', 'width="96" height="96"', 26.458333],
    ['a viewBox alone as pixels', 'viewBox="0 0 100 100"', 26.458333],
    ['percentages as the viewBox', 'width="100%" height="100%" viewBox="0 0 100 100"', 26.458333],
  ])('honours %s', (_, attributes, edge) => {
    expect(firstBox(svg('<rect width="100" height="100"/>', attributes)).maxX).toBeCloseTo(edge, 4);
  });

  it('centres a viewBox of another shape, or stretches it when told to', () => {
    const wide = 'width="100mm" height="50mm" viewBox="0 0 10 10"';
    expect(firstBox(svg('<rect width="10" height="10"/>', wide))).toMatchObject({ minX: 25, maxX: 75 });
    const stretched = `${wide} preserveAspectRatio="none"`;
    expect(firstBox(svg('<rect width="10" height="10"/>', stretched))).toMatchObject({ minX: 0, maxX: 100 });
  });

  it('reads every basic shape at its true length', () => {
    const lengths = readSvg(
      svg(`<rect width="10" height="20"/><circle cx="50" cy="50" r="10"/><ellipse cx="50" cy="50" rx="10" ry="10"/>
        <line x1="0" y1="0" x2="3" y2="4"/><polyline points="0,0 10,0 10,10"/><polygon points="0,0 10,0 10,10 0,10"/>
        <rect width="20" height="20" rx="5"/>`),
    ).contours.map((line) => measureContour(line.contour));
    const expected = [60, 20 * Math.PI, 20 * Math.PI, 5, 20, 40, 40 + 10 * Math.PI];
    expected.forEach((length, index) => expect(lengths[index]).toBeCloseTo(length, 2));
  });

  it('applies nested transforms from the outside in', () => {
    const box = firstBox(
      svg(
        '<g transform="translate(10 20)"><g transform="rotate(90) scale(2)"><rect width="5" height="1"/></g></g>',
      ),
    );
    expect(box.minX).toBeCloseTo(8, 9);
    expect(box.maxX).toBeCloseTo(10, 9);
    expect(box.maxY).toBeCloseTo(30, 9);
  });

  it('keeps layers and colours, however they are given', () => {
    const drawing = readSvg(
      svg(`<g id="inner"><path d="M1 1H5" stroke="red" fill="none"/></g>
        <g id="x" data-name="outline" style="stroke: rgb(0,0,255); fill: none"><path d="M1 1H5V5Z"/></g>
        <path d="M1 1H5V5Z" fill="#0a0"/><path d="M1 1H9" display="none"/><defs><path d="M1 1H9"/></defs>`),
    );
    expect(drawing.contours.map((line) => [line.layer, line.strokeColour, line.fillColour])).toEqual([
      ['inner', '#ff0000', null],
      ['outline', '#0000ff', null],
      [null, null, '#00aa00'],
    ]);
    expect(groupLines(drawing)).toHaveLength(3);
  });

  it('closes an outline whose ends meet and says what it left out', () => {
    const drawing = readSvg(svg('<path d="M0 0H10V10L0.01 0"/><text>Gull</text><image href="x.png"/>'));
    expect(drawing.contours[0]?.contour.isClosed).toBe(true);
    expect(drawing.leftOut.join(' ')).toMatch(/text .*pictures/);
  });

  it.each([
    ['not XML', 'not a drawing', /not well-formed/],
    ['an unclosed element', '<svg width="1mm" height="1mm"><g>', /not well-formed/],
    ['another kind of XML', '<html></html>', /starts with <html>/],
    ['no lines', svg(''), /no lines to cut/],
    ['only text', svg('<text>a</text>'), /holds only text/],
    ['no size', '<svg><path d="M0 0H1"/></svg>', /neither its width/],
    ['zero size', svg('<path d="M0 0H1"/>', 'width="0" height="10mm"'), /width is 0 mm/],
    ['an empty viewBox', svg('<path d="M0 0H1"/>', 'viewBox="0 0 0 10"'), /has no size/],
    ['an unknown unit', svg('<path d="M0 0H1"/>', 'width="3ell" height="3ell"'), /unknown unit "ell"/],
    ['a sheet-sized mistake', svg('<path d="M0 0H1"/>', 'width="30000mm" height="1mm"'), /at most 20000/],
    ['broken path data', svg('<path d="M0 0 L banana"/>'), /line 1: a path cannot be read/],
    ['not a number', svg('<circle r="NaN"/>'), /"NaN" is not a length/],
    ['numbers without end', svg('<path d="M0 0 L1e999 0"/>'), /not finite/],
    ['points that are words', svg('<polygon points="a,b c,d"/>'), /not a finite number/],
    ['a wrong transform', svg('<g transform="wobble(3)"><path d="M0 0H1"/></g>'), /wobble/],
    ['a negative size', svg('<rect width="-1" height="3"/>'), /negative/],
    [
      'entities within entities',
      '<!DOCTYPE svg [<!ENTITY a "x"><!ENTITY b "&a;&a;">]><svg width="1mm" height="1mm"><path d="M0 0H1"/></svg>',
      /defines entities/,
    ],
    ['an endless nest', svg(`${'<g>'.repeat(300)}<path d="M0 0H1"/>${'</g>'.repeat(300)}`), /nested deeper/],
    ['too many lines', svg(`<path d="${'M0 0H1'.repeat(100_001)}"/>`), /more than 100000 lines/],
  ])('refuses %s with a reason', (_, text, message) => {
    expect(() => readSvg(text)).toThrow(message);
    expect(() => readSvg(text)).toThrow(AppError);
  });

  it('refuses a move to where no sheet is, though nothing is drawn from there', () => {
    expect(() => readSvgPath('M1e9 0')).toThrow(/no sheet/);
    expect(() => readSvgPath('M0 0H5M0 1e9')).toThrow(/no sheet/);
    expect(() => readSvgPath('', [1, 0, 0, 1, Infinity, 0])).toThrow(/no sheet/);
    // What was refused leaves nothing behind for the next path.
    expect(readSvgPath('M0 0H5')).toEqual([{ path: [0, 0, 0, 5, 0], isClosed: false }]);
  });

  it('refuses a file that is too large before reading it', () => {
    expect(() => readSvg('x'.repeat(50_000_001))).toThrow(/at most 50000000/);
  });

  it('either reads or refuses random text, never breaks', () => {
    const piece = fc.constantFrom(
      '<g>',
      '</g>',
      '<path d="M0 0',
      'L9 9',
      'Z"/>',
      '&lt;',
      '<',
      '"',
      'NaN',
      '<rect/>',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 12 }), (pieces) => {
        try {
          readSvg(svg(pieces.join('')));
        } catch (error) {
          expect(error).toBeInstanceOf(AppError);
        }
      }),
      { seed: 12, numRuns: 300 },
    );
  });

  it('reads four hundred real icons, each inside its own frame (lucide-static)', () => {
    const folder = join(
      dirname(createRequire(import.meta.url).resolve('lucide-static/package.json')),
      'icons',
    );
    const files = readdirSync(folder)
      .filter((file) => file.endsWith('.svg'))
      .slice(0, 400);
    expect(files.length).toBe(400);
    for (const file of files) {
      const drawing = readSvg(readFileSync(join(folder, file), 'utf8'));
      for (const line of drawing.contours) {
        const box = boundContour(line.contour);
        expect(box.minX).toBeGreaterThanOrEqual(-0.3);
        expect(box.maxY).toBeLessThanOrEqual(drawing.heightMm + 0.3);
      }
    }
  });
});

describe('guessRoles', () => {
  const onMat = { canKiss: true, isRollFed: false, canCrease: true };
  const sticker = readSvg(
    svg(`<g id="gulls"><path d="M20 20H30V30Z" stroke="#00f" fill="none"/></g>
      <g id="edge"><rect x="5" y="5" width="90" height="90" stroke="#f00" fill="none"/></g>
      <g id="colours"><path d="M20 20H30V30Z" fill="#0f0"/></g>`),
  );

  it('takes the group around all others for what frees the piece, filled shapes for art', () => {
    expect(Object.values(rolesOf(guessRoles(sticker, onMat)))).toEqual(['kiss', 'through', 'art']);
  });

  it('kisses nothing on a single layer', () => {
    expect(Object.values(rolesOf(guessRoles(sticker, { ...onMat, canKiss: false })))).toEqual([
      'through',
      'through',
      'art',
    ]);
  });

  it('goes by the layer name where that says the role', () => {
    const named = readSvg(
      svg(
        '<g id="Kiss lines"><path d="M1 1H5" stroke="red"/></g><g id="printed art"><path d="M1 1H5" stroke="red"/></g>',
      ),
    );
    expect(Object.values(rolesOf(guessRoles(named, onMat)))).toEqual(['kiss', 'art']);
  });
});
