import { describe, expect, it } from 'vitest';
import { EMPTY_SHELF, pickSheet, usedSizes } from '#core/sheet/offerSheets.ts';

const bed = { bedWidthMm: 320, bedLengthMm: 1000 };
const takes = (width: number, height: number) => (size: { widthMm: number; heightMm: number }) =>
  size.widthMm >= width && size.heightMm >= height;
const remnants = [
  { widthMm: 210, heightMm: 120, note: 'blue box' },
  { widthMm: 120, heightMm: 90, note: '' },
  { widthMm: 210, heightMm: 297, note: '', takenMm: 100 },
];
const used = [{ name: '300 × 300 mm', widthMm: 300, heightMm: 300 }];

describe('the sheet that a job begins with', () => {
  it.each([
    [
      'a rest that is large enough, the smallest of them',
      { remnants, used },
      [100, 80],
      'remnant 120 × 90 mm',
    ],
    ['a larger rest with its note', { remnants, used }, [150, 100], 'remnant 210 × 120 mm, blue box'],
    ['never one end of a sheet by itself', { remnants: remnants.slice(2) }, [100, 80], 'A5'],
    ['what the material was cut from before', { remnants, used }, [250, 250], '300 × 300 mm'],
    ['a usual size where that is too small', { used }, [250, 400], 'A3'],
    ['a roll where no page is long enough', {}, [300, 800], 'roll 305 × 1000 mm'],
    ['the largest on the bed where nothing serves', {}, [900, 900], 'roll 305 × 1000 mm'],
  ] as const)('is %s', (_, shelf, [width, height], name) => {
    expect(pickSheet({ ...EMPTY_SHELF, ...shelf }, bed, takes(width, height))?.name).toBe(name);
  });

  it('is of the region’s own papers', () => {
    const names = (['metric', 'inch'] as const).map(
      (system) => pickSheet({ ...EMPTY_SHELF, system }, bed, takes(180, 240))?.name,
    );
    expect(names).toEqual(['A4', 'Letter']);
  });

  it('is none that the bed does not take', () => {
    expect(pickSheet(EMPTY_SHELF, { bedWidthMm: 100, bedLengthMm: 100 }, () => true)).toBe(null);
  });
});

it('sizes used before are whole sheets, each once', () => {
  const a4 = { name: 'A4', widthMm: 210, heightMm: 297 };
  const end = { name: 'Letter', widthMm: 215.9, heightMm: 100, wholeHeightMm: 279.4 };
  const rest = { name: 'remnant 90 × 60 mm', widthMm: 90, heightMm: 60 };
  expect(usedSizes([a4, end, rest, a4])).toEqual([a4]);
});
