import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { measurePrint } from '#benchmarks/prints/measurePrint.ts';

/** What is printed is what was drawn: each page beside the same file drawn by Debian's librsvg, at 600 dpi. */
const svg = (inside: string, attributes = 'viewBox="0 0 30 30"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="25.4mm" height="25.4mm" ${attributes}>${inside}</svg>`;
/** Share of pixels that may differ: edges, smoothed by two renderers. */
const MOST = 0.02;

const FROM_LINES = {
  'a star that crosses itself, by either rule':
    '<path fill="#a33" d="M8 2L12 14L2 6H14L4 14Z"/><path fill="#36c" fill-rule="evenodd" d="M22 2L26 14L16 6H28L18 14Z"/>',
  'caps and joins':
    '<g fill="none" stroke="#264" stroke-width="3"><path d="M4 5H12L8 12"/><path stroke-linecap="square" stroke-linejoin="bevel" d="M18 5H26L22 12"/><path stroke-linecap="round" stroke-linejoin="round" d="M4 18H12L8 25"/><path stroke-miterlimit="1" d="M18 18H26L22 25"/></g>',
  'dashes that begin in the middle of one':
    '<path fill="none" stroke="#000" stroke-width="2" stroke-dasharray="4 2 1" stroke-dashoffset="3" d="M2 4H28V26H2Z"/>',
  'one over the other, as they stand in the file':
    '<circle cx="12" cy="15" r="9" fill="#c92"/><circle cx="18" cy="15" r="9" fill="#27a"/><circle cx="15" cy="15" r="3" fill="#c92"/>',
};
const GRADIENT =
  '<linearGradient id="g"><stop offset="0" stop-color="#e3b23c"/><stop offset="1" stop-color="#3b2a8b"/></linearGradient>';
const FROM_FILE = {
  gradients: `${GRADIENT}<circle cx="15" cy="15" r="12" fill="url(#g)" stroke="url(#g)" stroke-width="2"/>`,
  opacity:
    '<rect x="3" y="3" width="18" height="18" fill="#c00"/><g opacity=".4"><rect x="9" y="9" width="18" height="18" fill="#00c"/></g><circle cx="15" cy="15" r="5" fill="rgba(0,255,0,.5)"/>',
  'a clip that is no box':
    '<clipPath id="k"><circle cx="15" cy="15" r="10"/></clipPath><g clip-path="url(#k)"><rect width="30" height="15" fill="#c33"/><rect y="15" width="30" height="15" fill="#333"/></g>',
  'a mask and a filter':
    '<mask id="m"><rect width="30" height="30" fill="#fff"/><circle cx="15" cy="15" r="5"/></mask><filter id="f"><feGaussianBlur stdDeviation="1"/></filter><rect x="5" y="5" width="20" height="20" fill="#285" mask="url(#m)"/><circle cx="15" cy="15" r="3" fill="#c00" filter="url(#f)"/>',
  markers:
    '<marker id="a" markerWidth="4" markerHeight="4" refX="2" refY="2"><circle cx="2" cy="2" r="2" fill="#c00"/></marker><path fill="none" stroke="#000" marker-start="url(#a)" marker-end="url(#a)" d="M6 6L24 24"/>',
  'a pen squeezed by its group':
    '<g transform="scale(2 .7)" fill="none" stroke="#446" stroke-width="3"><circle cx="7.5" cy="21" r="4"/></g>',
  'symbols, each in its colour':
    '<symbol id="s" viewBox="0 0 10 10"><circle cx="5" cy="5" r="4"/></symbol><use href="#s" width="10" height="10" fill="#c00"/><use xlink:href="#s" x="12" y="12" width="16" height="16" fill="#06c" opacity=".5"/>',
  'a pattern and a style sheet':
    '<style>.p { fill: url(#d); stroke: #222 }</style><pattern id="d" width="12" height="12" patternUnits="userSpaceOnUse"><rect width="6" height="6" fill="#c60"/></pattern><path class="p" d="M3 3H27V27H3Z"/>',
};

/** Four patches of four colours each way: few enough that their edges, which two renderers smooth, hardly count. */
const chequer = await sharp(
  Buffer.from(
    Array.from(
      { length: 256 },
      (_, at) =>
        [
          [200, 40, 40],
          [40, 140, 60],
          [40, 60, 190],
          [230, 190, 40],
        ][((at >> 2) + at) % 4] as number[],
    ).flat(),
  ),
  { raw: { width: 4, height: 4, channels: 3 } },
)
  .resize(320, 320, { kernel: 'nearest' })
  .png()
  .toBuffer();
const picture = (attributes: string) =>
  `<image href="data:image/png;base64,${chequer.toString('base64')}" ${attributes}/>`;
const IN_LAYERS = {
  'a picture over a gradient and under a shape': `${GRADIENT}<rect width="30" height="30" fill="url(#g)"/>${picture('x="5" y="5" width="16" height="16"')}<circle cx="20" cy="20" r="7" fill="url(#g)"/>`,
  'pictures and shapes by turns, one turned': `<rect width="30" height="30" fill="#eee"/>${picture('x="2" y="2" width="10" height="10"')}<circle cx="12" cy="12" r="4" fill="#222"/>${picture('x="12" y="2" width="12" height="12" transform="rotate(20 18 8)"')}<path d="M2 20H28V28H2Z" fill="#264"/>${picture('x="6" y="14" width="10" height="10"')}`,
  'a picture in a group that is moved and enlarged': `<circle cx="15" cy="15" r="14" fill="#c92"/><g transform="translate(4 6) scale(1.5)">${picture('width="12" height="9" preserveAspectRatio="none"')}</g>`,
  'a clipped picture under a line': `<clipPath id="k"><circle cx="15" cy="15" r="10"/></clipPath>${picture('width="30" height="30" clip-path="url(#k)"')}<path d="M2 15H28" stroke="#000" stroke-width="2" fill="none"/>`,
  'a picture that is fitted into a frame of another shape': `<rect width="30" height="30" fill="#fff"/>${picture('width="30" height="15"')}<circle cx="15" cy="24" r="4" fill="#222"/>`,
  'a picture half clear between two that are not': `<rect width="30" height="30" fill="#fff"/>${picture('width="14" height="14"')}${picture('x="8" y="8" width="14" height="14" opacity=".5"')}${picture('x="16" y="16" width="12" height="12"')}`,
};

describe('art of plain colours is printed by its lines, as librsvg draws it', () => {
  it.each(Object.entries(FROM_LINES))('%s', async (name, inside) => {
    const score = await measurePrint(name, svg(inside));
    expect(score.isFromFile).toBe(false);
    expect(score.differs).toBeLessThan(MOST);
  });
});

describe('pictures among shapes are printed as they stand, as librsvg draws them', () => {
  it.each(Object.entries(IN_LAYERS))('%s', async (name, inside) => {
    const score = await measurePrint(name, svg(inside));
    expect(score.isFromFile).toBe(true);
    expect(score.differs).toBeLessThan(MOST);
  });
});

describe('art that is more than lines is printed from its file, as librsvg draws it', () => {
  it.each(Object.entries(FROM_FILE))('%s', async (name, inside) => {
    const score = await measurePrint(name, svg(inside));
    expect(score.isFromFile).toBe(true);
    expect(score.differs).toBeLessThan(MOST);
    // The check can fail: by its lines alone it looks otherwise.
    expect(score.linesDiffer).toBeGreaterThan(MOST);
  });

  it('also where the drawing is not at the upper left, or its size is in no unit', async () => {
    const inside = `${GRADIENT}<circle cx="115" cy="-85" r="12" fill="url(#g)"/>`;
    const moved = await measurePrint('moved', svg(inside, 'viewBox="100 -100 30 30"'));
    expect(moved.differs).toBeLessThan(MOST);
    const bare = `<svg xmlns="http://www.w3.org/2000/svg" width="96" height="96">${GRADIENT}<rect x="20" y="30" width="50" height="40" fill="url(#g)"/></svg>`;
    expect((await measurePrint('bare', bare)).differs).toBeLessThan(MOST);
  });
});
