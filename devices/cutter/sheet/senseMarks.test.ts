import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { senseMarks, type SenseConditions } from '#devices/cutter/sheet/senseMarks.ts';
import { applyMap, composeMaps, invertMap, type SheetMap } from '#devices/cutter/sheet/sheetMap.ts';

const a4 = { widthMm: 210, heightMm: 297 };
const clear: SenseConditions = {
  gloss: 0,
  roomLight: 0,
  skewRad: 0,
  isMatLifted: false,
  hasStrayInk: false,
  isWet: false,
};
const straight = { scale: 1, turnRad: 0 };
/** No chance at all: every draw in the middle. */
const still = () => 0.5;
const off = (map: SheetMap, xMm: number, yMm: number) => {
  const at = applyMap(map, { xMm, yMm });
  return Math.hypot(at.xMm - xMm, at.yMm - yMm);
};

describe('maps of a sheet', () => {
  const map = fc
    .tuple(
      fc.double({ min: -1, max: 1, noNaN: true }),
      fc.double({ min: 0.5, max: 2, noNaN: true }),
      fc.double({ min: -50, max: 50, noNaN: true }),
      fc.double({ min: -50, max: 50, noNaN: true }),
    )
    .map(([turn, scale, x, y]): SheetMap => {
      const [cos, sin] = [scale * Math.cos(turn), scale * Math.sin(turn)];
      return [cos, sin, -sin, cos, x, y];
    });

  it('are undone by their inverse, from either side (1e-9 mm)', () => {
    fc.assert(
      fc.property(map, (one) => {
        for (const both of [composeMaps(one, invertMap(one)), composeMaps(invertMap(one), one)]) {
          expect(off(both, 30, -70)).toBeLessThan(1e-9);
        }
      }),
      { seed: 71 },
    );
  });
});

describe('the sensor', () => {
  it('takes out any turn of print and sheet that it can see: cuts land on the print (1e-9 mm without noise)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.005, max: 0.005, noNaN: true }),
        fc.double({ min: -0.004, max: 0.004, noNaN: true }),
        (turnRad, skewRad) => {
          const { landing, trouble } = senseMarks(a4, { scale: 1, turnRad }, { ...clear, skewRad }, still);
          expect(trouble).toBe('');
          expect(off(landing!, 40, 40)).toBeLessThan(1e-9);
          expect(off(landing!, 170, 257)).toBeLessThan(1e-9);
        },
      ),
      { seed: 72 },
    );
  });

  it('leaves in what the printer enlarged: a corner is off by its way from the middle times the scale', () => {
    const { landing } = senseMarks(a4, { scale: 1.002, turnRad: 0 }, clear, still);
    expect(off(landing!, 40, 40)).toBeCloseTo((Math.hypot(65, 108.5) * 0.002) / 1.002, 3);
    expect(off(landing!, 105, 148.5)).toBeLessThan(1e-9);
  });

  it('shakes by a few hundredths of a mm from look to look, the same for the same draws', () => {
    const looks = Array.from({ length: 60 }, (_, look) => {
      let state = look + 1;
      const draw = () => (state = (state * 16807) % 2147483647) / 2147483647;
      return off(senseMarks(a4, straight, clear, draw).landing!, 105, 148.5);
    });
    const mean = looks.reduce((sum, one) => sum + one, 0) / looks.length;
    // Four marks of 0.04 mm each: their mean is off by about 0.025 mm in two directions.
    expect(mean).toBeGreaterThan(0.005);
    expect(mean).toBeLessThan(0.08);
  });

  it.each<[string, Partial<SenseConditions>, RegExp, number]>([
    ['light of the room', { roomLight: 0.85 }, /none of the four stands out/, 0],
    ['a lifted mat', { isMatLifted: true }, /not the one at the bottom right stands out/, 3],
    ['a sheet askew', { skewRad: 0.05 }, /lies where it should/, 1],
    ['stray ink', { hasStrayInk: true }, /what was read does not fit by \d\.\d mm/, 4],
  ])('is stopped by %s, and says what it saw', (_, change, words, read) => {
    const sensed = senseMarks(a4, straight, { ...clear, ...change }, still);
    expect(sensed.landing).toBeNull();
    expect(sensed.trouble).toMatch(/^the marks were not found/);
    expect(sensed.trouble).toMatch(words);
    expect(sensed.marks.filter(({ isRead }) => isRead)).toHaveLength(read);
  });

  it('reads wet marks less well: they stand out less and shake more, seen over many looks', () => {
    const spread = (isWet: boolean) => {
      const looks = Array.from({ length: 80 }, (_, look) => {
        let state = look + 7;
        const draw = () => (state = (state * 16807) % 2147483647) / 2147483647;
        return senseMarks(a4, straight, { ...clear, isWet }, draw);
      });
      expect(looks.every(({ trouble }) => trouble === '')).toBe(true);
      expect(looks[0]!.marks[0]!.contrast).toBe(isWet ? 0.55 : 1);
      return Math.sqrt(looks.reduce((sum, { landing }) => sum + off(landing!, 105, 148.5) ** 2, 0) / 80);
    };
    // The same draws shake marks by 1 / 0.55 as much.
    expect(spread(true) / spread(false)).toBeCloseTo(1 / 0.55, 1);
  });

  it('is stopped by a print that was fitted to the page', () => {
    expect(senseMarks(a4, { scale: 0.97, turnRad: 0 }, clear, still).trouble).toMatch(/does not fit by/);
  });

  it('reads the marks that are printed, wherever and however many, and small ones less well', () => {
    const spots = [
      { name: 'top left', xMm: 20, yMm: 20 },
      { name: 'top right', xMm: 190, yMm: 20 },
      { name: 'bottom left', xMm: 20, yMm: 277 },
    ];
    const large = senseMarks(a4, straight, clear, still, { lengthMm: 6, spots });
    expect(large.marks.map(({ corner }) => corner)).toEqual(spots.map(({ name }) => name));
    expect(large.trouble).toBe('');
    expect(off(large.landing!, 100, 100)).toBeLessThan(1e-9);
    const small = senseMarks(a4, straight, clear, still, { lengthMm: 2, spots });
    expect(small.marks[0]!.contrast).toBeCloseTo(large.marks[0]!.contrast / 2, 9);
    const tiny = senseMarks(a4, straight, clear, still, { lengthMm: 1, spots });
    expect(tiny.trouble).toBe('the marks were not found: none of the 3 stands out');
  });
});
