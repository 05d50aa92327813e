import { describe, expect, it } from 'vitest';
import { Hold } from '#devices/cutter/hold.ts';

const ring = [0, 1, 2, 3, 4].map((corner) => ({
  xMm: [0, 10, 10, 0, 0][corner]!,
  yMm: [0, 0, 10, 10, 0][corner]!,
}));
const parted = [{ from: 0, to: 1, grade: 7 }];
const kissed = [{ from: 0, to: 1, grade: 3 }];

const cutMany = (hold: Hold, spans: typeof parted, count = 60) =>
  Array.from({ length: count }, () => hold.after(ring, spans)).filter(Boolean);

describe('what holds a sheet', () => {
  it('lets a weak mat creep, and a strong one not', () => {
    const weak = new Hold({ tack: 8 }, 1, 'sheet');
    cutMany(weak, kissed);
    expect(Math.hypot(weak.crept.xMm, weak.crept.yMm)).toBeGreaterThan(0.2);
    expect(weak.shift({ xMm: 1, yMm: 1 }).xMm).toBeCloseTo(1 + weak.crept.xMm, 12);
    const strong = new Hold({ tack: 60 }, 1, 'sheet');
    cutMany(strong, kissed);
    expect(strong.crept).toEqual({ xMm: 0, yMm: 0 });
  });

  it('lets loose pieces of a roll catch, never the first two, and never those on a good mat', () => {
    for (let seed = 1; seed < 30; seed++) {
      const roll = new Hold({ tack: null }, seed, 'roll');
      expect(roll.after(ring, parted)).toBeNull();
      expect(roll.after(ring, parted)).toBeNull();
    }
    expect(cutMany(new Hold({ tack: null }, 4, 'roll'), parted).length).toBeGreaterThan(0);
    expect(cutMany(new Hold({ tack: null }, 4, 'roll'), kissed)).toEqual([]);
    expect(cutMany(new Hold({ tack: 60 }, 4, 'mat'), parted)).toEqual([]);
  });

  it('lets short tabs tear, so that pieces catch, and long ones hold', () => {
    // An outline of 40 mm by eight stretches: cut, tab, cut, tab …
    const corner = (along: number) => {
      const side = Math.floor(along / 10) % 4;
      const rest = along % 10;
      return [
        { xMm: rest, yMm: 0 },
        { xMm: 10, yMm: rest },
        { xMm: 10 - rest, yMm: 10 },
        { xMm: 0, yMm: 10 - rest },
      ][side]!;
    };
    const cutPiece = (hold: Hold, tabMm: number) => {
      const told: (string | null)[] = [];
      for (let tab = 0; tab < 4; tab++) {
        const [from, middle, to] = [tab * 10, tab * 10 + tabMm, tab * 10 + 10];
        told.push(hold.after([corner(from), corner(middle)], kissed));
        told.push(hold.after([corner(middle), corner(to === 40 ? 0 : to)], parted));
      }
      return told.filter(Boolean).length;
    };
    const jams = (tabMm: number) => {
      const hold = new Hold({ tack: null }, 11, 'tabs');
      return Array.from({ length: 120 }, () => cutPiece(hold, tabMm)).reduce((sum, one) => sum + one, 0);
    };
    expect(jams(1)).toBe(0);
    expect(jams(0.05)).toBeGreaterThan(0);
  });

  it('lets corners stand up under thin adhesive only, and catch what passes them', () => {
    const jams = (adhesiveUm: number) =>
      cutMany(new Hold({ tack: null, adhesiveUm }, 2, 'corners'), kissed, 400);
    expect(jams(8)).toContain('jam: a lifted corner caught under the blade');
    expect(jams(25)).toEqual([]);
  });

  it('is the same for the same seed, and nothing happens where nobody says how it is held', () => {
    const run = () => {
      const hold = new Hold({ tack: 5 }, 9, 'same');
      cutMany(hold, parted);
      return hold.crept;
    };
    expect(run()).toEqual(run());
    expect(cutMany(new Hold(null, 1, 'x'), parted)).toEqual([]);
  });
});
