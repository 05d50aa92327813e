import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { boundContour, joinBoxes } from '#core/geometry/box.ts';
import { readFont } from '#web/endpoints/jobs/words/readFont.ts';
import { readShippedFont, SHIPPED_FONTS } from '#web/endpoints/jobs/words/shippedFonts.ts';
import { fontFactsTask, outlineTextTask, wordsTask } from '#web/workers/tasks/wordTasks.ts';

const fileOf = (id: string) => readShippedFont(id) as Buffer;
const set = (text: string, font = 'bold', borderMm = 0) =>
  wordsTask({ text, font: fileOf(font), heightMm: 20, borderMm });

describe('words in a font', () => {
  it.each(SHIPPED_FONTS.map(({ id, name }) => [name, id]))('%s: capitals are as tall as asked', (_, id) => {
    const { heightMm, missing } = set('H', id);
    // A script's H swings beyond its height; the others keep to it.
    if (id === 'script') expect(heightMm).toBeGreaterThan(15);
    else expect(Math.abs(heightMm - 20)).toBeLessThan(0.8);
    expect(missing).toEqual([]);
  });

  it('letters of a script hang together, others come off one by one', () => {
    expect(set('gull', 'script').pieces).toBeLessThan(set('gull').pieces);
    expect(set('gull').pieces).toBe(4);
  });

  it('one border joins them all, by necks that hold', () => {
    const { leastBorderMm } = set('hull');
    expect(set('hull', 'bold', leastBorderMm!).pieces).toBe(1);
    expect(set('hull', 'bold', leastBorderMm! / 3).pieces).toBeGreaterThan(1);
  });

  it('lines stand under each other, and what a font lacks is told', () => {
    expect(set('a\nb').heightMm).toBeGreaterThan(set('a').heightMm + 15);
    expect(set('a漢').missing).toEqual(['漢']);
  });

  it('a font is told by what it is called; what is none is refused in words', () => {
    expect(fontFactsTask({ font: fileOf('round') })).toMatchObject({
      family: expect.stringMatching(/Fredoka/),
    });
    expect(() => readFont(readFileSync(new URL(import.meta.url)))).toThrow(/no font that is read/);
    expect(() => readFont(Buffer.alloc(0))).toThrow(/no font that is read/);
  });
});

describe('words in a drawing', () => {
  const fonts = SHIPPED_FONTS.map(({ id, family, isBold }) => ({ family, isBold, data: fileOf(id) }));
  const svg = (inside: string) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100">${inside}</svg>`;
  const boxOf = (inside: string) => {
    const { contours } = readSvg(outlineTextTask({ source: svg(inside), fonts }));
    return joinBoxes(contours.map(({ contour }) => boundContour(contour)));
  };
  const text = (attributes: string, words = 'Hull') =>
    `<text font-family="Fredoka, sans-serif" font-size="20" ${attributes}>${words}</text>`;

  it('are outlines at their place: on the line, from it, around it or up to it', () => {
    const start = boxOf(text('x="50" y="60"'));
    expect(start.maxY).toBeGreaterThan(59.5);
    expect(start.maxY).toBeLessThan(61);
    expect(start.minX).toBeGreaterThan(50);
    const width = start.maxX - 50;
    const middle = boxOf(text('x="50" y="60" text-anchor="middle"'));
    const end = boxOf(text('x="50" y="60" style="text-anchor: end"'));
    expect(Math.abs((middle.minX + middle.maxX) / 2 - 50)).toBeLessThan(1);
    expect(end.maxX).toBeLessThanOrEqual(50);
    expect(end.minX).toBeCloseTo(start.minX - width - (50 - end.maxX) + (start.maxX - 50 - width), 0);
  });

  it('keep paint, groups, turns and parts that stand elsewhere', () => {
    const source = svg(
      `<style>text { fill: #c00 }</style><g transform="translate(10 20)">${text('id="name" x="0" y="0"', 'a <tspan fill="#00f" x="40" dy="15">b</tspan>')}</g>`,
    );
    const { contours, leftOut } = readSvg(outlineTextTask({ source, fonts }));
    expect(leftOut).toEqual([]);
    const [red, blue] = ['#cc0000', '#0000ff'].map((colour) =>
      joinBoxes(
        contours
          .filter(({ fillColour }) => fillColour === colour)
          .map(({ contour }) => boundContour(contour)),
      ),
    );
    expect(red!.minX).toBeGreaterThan(10);
    expect(red!.maxY).toBeLessThan(21);
    expect(blue!.minX).toBeGreaterThan(50);
    expect(blue!.maxY).toBeGreaterThan(34);
    expect(contours[0]!.layer).toBe('name');
  });

  it('stay text in a font that is not known, which is named', () => {
    const source = svg(
      `<text font-family="'Nobody Sans', serif" y="20">x</text><path d="M0 0H9" stroke="#000"/>`,
    );
    expect(outlineTextTask({ source, fonts })).toBe(source);
    expect(readSvg(source).leftOut.join()).toMatch(/text in Nobody Sans, a font that is not known here/);
  });

  it('stay text along a path', () => {
    const source = svg(text('y="20"', '<textPath href="#p">along</textPath>') + '<path id="p" d="M0 0H9"/>');
    expect(outlineTextTask({ source, fonts })).toBe(source);
  });
});
