import { describe, expect, it } from 'vitest';
import { HpglDecoder } from '#devices/cutter/decodeHpgl.ts';
import { splitByPattern } from '#devices/cutter/splitByPattern.ts';

const straight = [
  { xMm: 0, yMm: 0 },
  { xMm: 20, yMm: 0 },
];

describe('splitByPattern', () => {
  it('lifts in the middle of every period and keeps half a cut at both ends', () => {
    const pieces = splitByPattern(straight, { shares: [40, 20, 40], periodMm: 10 });
    // Periods of 10 mm: down 4, up 2, down 4, and down meets down between them.
    expect(pieces.map(({ isDown, from, to }) => [isDown, from * 20, to * 20])).toEqual([
      [true, 0, 4],
      [false, 4, 6],
      [true, 6, 14],
      [false, 14, 16],
      [true, 16, 20],
    ]);
    expect(pieces[2]!.points[0]).toEqual({ xMm: 6, yMm: 0 });
  });

  it('goes around corners without losing way', () => {
    const bent = [...straight, { xMm: 20, yMm: 10 }];
    const pieces = splitByPattern(bent, { shares: [45, 10, 45], periodMm: 15 });
    const length = pieces.reduce((sum, { points }) => {
      return points.reduce((own, spot, index) => {
        const before = points[index - 1];
        return before ? own + Math.hypot(spot.xMm - before.xMm, spot.yMm - before.yMm) : own;
      }, sum);
    }, 0);
    expect(length).toBeCloseTo(30, 9);
    expect(pieces.filter(({ isDown }) => !isDown)).toHaveLength(2);
  });
});

describe('a line type', () => {
  it('is decoded from UL and LT, and taken off by LT alone', () => {
    const instructions = new HpglDecoder().push(Buffer.from('UL1,45,10,45;LT1,17.5,1;LT;'));
    expect(instructions).toEqual([
      { kind: 'defineLine', shares: [45, 10, 45] },
      { kind: 'line', periodMm: 17.5 },
      { kind: 'line', periodMm: null },
    ]);
    expect(() => new HpglDecoder().push(Buffer.from('LT1,4,0;'))).toThrow(/only lengths in mm/);
  });
});
