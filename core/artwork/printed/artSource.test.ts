import { describe, expect, it } from 'vitest';
import { openArt } from '#core/artwork/printed/artSource.ts';
import { extendInk } from '#core/artwork/printed/extendInk.ts';
import { drawPieceArt, placeArt } from '#core/artwork/printed/pieceArt.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';

const svg = (inside: string, root = 'viewBox="0 0 40 40"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" ${root}>${inside}</svg>`;
const whole = { minX: 0, minY: 0, maxX: 40, maxY: 40 };
const keep = (...shapes: readonly number[]) => ({
  shape: (shape: number) => shapes.includes(shape),
  picture: () => true,
});
/** What is left, read again. */
const left = (source: string, ...shapes: readonly number[]) =>
  readSvg(openArt(source).write(whole, keep(...shapes))).contours;

describe('a drawing written again without some of its shapes', () => {
  const three = svg(
    '<g id="a"><rect width="9" height="9"/><circle cx="20" cy="20" r="5" fill="red"/></g><path d="M1 30H9V39Z"/>',
  );

  it('has the others at their place, in their colours', () => {
    const [only, ...rest] = left(three, 1);
    expect(rest).toEqual([]);
    expect(only).toMatchObject({ layer: 'a', fillColour: '#ff0000' });
    expect(only!.contour.path[0]).toBeCloseTo(25, 9);
  });

  it('is cut to the part that is asked for, at real size', () => {
    const text = openArt(three).write({ minX: 10, minY: 10, maxX: 30, maxY: 25 }, keep(1));
    expect(text).toMatch(/width="20mm" height="15mm" viewBox="10 10 20 15"/);
    const read = readSvg(text);
    expect([read.widthMm, read.heightMm]).toEqual([20, 15]);
    expect(read.contours[0]!.contour.path[0]).toBeCloseTo(15, 9);
  });

  it('keeps gradients, style sheets and words', () => {
    const source = svg(
      '<style>.x { fill: url(#g) }</style><linearGradient id="g"/><path class="x" d="M0 0H9V9Z"/><path d="M9 9H20V20Z"/><text x="3" y="9">Gull &amp; co</text>',
    );
    const text = openArt(source).write(whole, keep(0));
    for (const kept of ['.x {', '<linearGradient', 'class="x"', 'Gull &amp; co'])
      expect(text).toContain(kept);
    expect(text).not.toContain('M9 9H20');
  });

  it('hides one that is reused elsewhere, and shows it there', () => {
    const source = svg('<path id="p" d="M0 0H9V9Z"/><use href="#p" x="20"/>');
    const [only, ...rest] = left(source, 1);
    expect(rest).toEqual([]);
    expect(only!.contour.path[0]).toBe(20);
  });

  it('writes a symbol out where only some of it is shown', () => {
    const symbol =
      '<symbol id="s" viewBox="0 0 10 10"><circle cx="5" cy="5" r="4"/><rect width="2" height="2"/></symbol>';
    const source = svg(
      `${symbol}<use href="#s" x="2" width="10" height="10" fill="#00f"/><use href="#s" x="20" width="20" height="20"/>`,
    );
    const lines = left(source, 1, 2);
    expect(lines.map(({ fillColour, contour }) => [fillColour, contour.path[0]])).toEqual([
      ['#0000ff', 2],
      ['#000000', 38],
    ]);
  });

  it('heeds prefixes, marks of the file, and pictures', () => {
    const source = `<?xml version="1.0"?><!DOCTYPE svg><q:svg xmlns:q="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40"><q:defs><q:path id="d" d="M0 0H4V4Z"/></q:defs><q:use href="#d"/><q:rect id="r" width="9" height="9"/><q:image width="5" height="5" href="data:image/png;base64,AAAA"/></q:svg>`;
    const text = openArt(source).write(whole, { shape: (shape) => shape === 0, picture: () => false });
    expect(text).toContain('<q:defs><q:rect id="r"');
    expect(text.replace(/<q:defs>.*?<\/q:defs>/g, '')).not.toMatch(/q:image|q:rect/);
    expect(readSvg(text).contours.length).toBe(1);
  });

  it('shows exactly the shapes that are asked for, whatever nests in what (300 seeded drawings)', () => {
    const random = seededRandom(41);
    const pick = <T>(all: readonly T[]) => all[Math.floor(random() * all.length)] as T;
    for (let round = 0; round < 300; round++) {
      const figure = () => `<path d="M${Math.floor(random() * 30)} ${Math.floor(random() * 30)}h3v3z"/>`;
      const group = (depth: number): string =>
        Array.from({ length: 1 + Math.floor(random() * 3) }, () => {
          const kind = random();
          if (kind < 0.5 || depth > 2) return figure();
          if (kind < 0.7) return `<g transform="translate(1 ${depth})">${group(depth + 1)}</g>`;
          return `<use href="#${pick(['s', 't'])}" x="${Math.floor(random() * 9)}" width="8" height="8"/>`;
        }).join('');
      const source = svg(
        `<symbol id="s" viewBox="0 0 40 40" overflow="visible">${figure()}${figure()}</symbol><g id="t">${figure()}<use href="#s" width="40" height="40"/></g>${group(0)}`,
      );
      const all = readSvg(source).contours;
      const shown = new Set(all.map(({ shape }) => shape).filter(() => random() < 0.5));
      const wanted = all.filter(({ shape }) => shown.has(shape));
      if (wanted.length === 0) continue;
      const got = left(source, ...shown);
      expect(got.length).toBe(wanted.length);
      got.forEach(({ contour }, at) =>
        contour.path.forEach((value, index) =>
          expect(value).toBeCloseTo(wanted[at]!.contour.path[index]!, 6),
        ),
      );
    }
  });
});

describe('the art of pieces', () => {
  const source = svg(
    '<linearGradient id="g"/><g fill="url(#g)"><circle cx="10" cy="10" r="5"/><circle cx="30" cy="30" r="5"/></g><g fill="none" stroke="#f00"><circle cx="10" cy="10" r="7"/><circle cx="30" cy="30" r="7"/></g>',
  );
  const given = { roles: { '|#000000': 'art', '|#ff0000': 'kiss' }, lineRoles: {} } as const;
  const drawing = readSvg(source);
  const pieces = splitPieces(drawing, given, false);

  it('is each its own, without the lines that are cut', () => {
    const arts = drawPieceArt(openArt(source), drawing, given, pieces);
    expect(arts.length).toBe(2);
    const read = readSvg(arts[1]!.svg);
    expect(read.contours.map(({ strokeColour }) => strokeColour)).toEqual([null]);
    const { box } = arts[1]!;
    expect(read.contours[0]!.contour.path[0]! + box.minX).toBeCloseTo(35, 9);
  });

  it('lies where its piece lies, turned with it', () => {
    const arts = drawPieceArt(openArt(source), drawing, given, pieces);
    const placement = { piece: 1, sheet: 0, xMm: 100, yMm: 50, turnDeg: 90 };
    const [placed, ...rest] = placeArt(arts, pieces, { placements: [placement] }, 0);
    expect(rest).toEqual([]);
    const [a, b, c, d, e, f] = placed!.toMm;
    // The middle of the art is that of the piece, and a turn by a quarter swaps the axes.
    expect([e + (a + c) / 2, f + (b + d) / 2].map(Math.round)).toEqual([100, 50]);
    expect([a, d]).toEqual([-0, 0].map(() => expect.closeTo(0, 9)));
  });
});

describe('ink that goes on beyond its edge', () => {
  it('takes the colour of the nearest solid pixel within reach, as a search of all finds (40 seeded pictures)', () => {
    const random = seededRandom(7);
    for (let round = 0; round < 40; round++) {
      const [width, height] = [1 + Math.floor(random() * 24), 1 + Math.floor(random() * 24)];
      const data = new Uint8Array(4 * width * height).map(() => Math.floor(random() * 256));
      for (let at = 3; at < data.length; at += 4)
        data[at] = random() < 0.1 ? 255 : Math.floor(random() * 240);
      const reach = random() * 12;
      const got = extendInk({ width, height, data }, reach).data;
      for (let at = 0; at < width * height; at++) {
        let least = Infinity;
        for (let other = 0; other < width * height; other++) {
          if (data[4 * other + 3] !== 255) continue;
          const dx = (other % width) - (at % width);
          const dy = Math.floor(other / width) - Math.floor(at / width);
          least = Math.min(least, dx * dx + dy * dy);
        }
        if (least > reach * reach) {
          expect(got[4 * at + 3]).toBe(0);
          continue;
        }
        // Several may be as near: the colour is that of one of them.
        const near = Array.from({ length: width * height }, (_, other) => other).filter((other) => {
          const dx = (other % width) - (at % width);
          const dy = Math.floor(other / width) - Math.floor(at / width);
          return data[4 * other + 3] === 255 && dx * dx + dy * dy === least;
        });
        expect(near.some((other) => [0, 1, 2, 3].every((k) => data[4 * other + k] === got[4 * at + k]))).toBe(
          true,
        );
      }
    }
  });
});
