import { plotterFile } from '#core/tests/sampleJob.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { strokeFigures, widthOfFigures } from '#core/dialIn/strokeFigures.ts';
import { composeCard, findPlace, measureCard } from '#core/dialIn/testCard.ts';
import { makeTestPiece, TEST_PIECES } from '#core/dialIn/testPiece.ts';
import { writeCardFile, writeCardSvg } from '#core/protocol/writeCard.ts';
import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import type { BoxMm } from '#core/geometry/box.ts';

const lengthOf = (points: Parameters<typeof measurePolyline>[0]) => measurePolyline(points);

describe('test pieces', () => {
  const spot = {
    name: 'badge',
    widthMm: 4,
    heightMm: 3,
    lines: [
      [
        { x: 0, y: 0 },
        { x: 4, y: 3 },
      ],
    ],
  };
  it.each(TEST_PIECES)('%s lies inside its own size', (kind) => {
    const { lines, widthMm, heightMm } = makeTestPiece(kind, undefined, spot);
    for (const { x, y } of lines.flatMap(({ points }) => points)) {
      expect(x).toBeGreaterThanOrEqual(-1e-9);
      expect(y).toBeGreaterThanOrEqual(-1e-9);
      expect(x).toBeLessThanOrEqual(widthMm + 1e-9);
      expect(y).toBeLessThanOrEqual(heightMm + 1e-9);
    }
  });

  it('draws rings that close, a circle of its circumference, and a star with narrow points', () => {
    for (const kind of ['square', 'star', 'circle'] as const) {
      for (const { points } of makeTestPiece(kind).lines) expect(points.at(-1)).toEqual(points[0]);
    }
    // 72 chords of a circle of 25 mm: 2 r n sin(pi / n).
    expect(lengthOf(makeTestPiece('circle').lines[0]!.points)).toBeCloseTo(
      25 * 72 * Math.sin(Math.PI / 72),
      6,
    );
    const [tip, notch] = makeTestPiece('star').lines[0]!.points as [
      { x: number; y: number },
      { x: number; y: number },
    ];
    const half = Math.atan2(Math.abs(notch.x - tip.x), notch.y - tip.y);
    expect((2 * half * 180) / Math.PI).toBeLessThan(45);
  });

  it('perforates a coupon all round: cuts and tabs alternate, cover the outline once, and keep off the corners', () => {
    const coupon = { widthMm: 44, heightMm: 31, cutLengthMm: 9, tabLengthMm: 1.2 };
    const { lines } = makeTestPiece('coupon', coupon);
    const total = lines.reduce((sum, { points }) => sum + lengthOf(points), 0);
    expect(total).toBeCloseTo(2 * (44 + 31), 6);
    const tabs = lines.filter(({ isTab }) => isTab);
    tabs.forEach(({ points }) => expect(lengthOf(points)).toBeCloseTo(1.2, 9));
    const corners = [
      [0, 0],
      [44, 0],
      [44, 31],
      [0, 31],
    ] as const;
    for (const { points } of tabs) {
      for (const { x, y } of points) {
        for (const [cx, cy] of corners) expect(Math.hypot(x - cx, y - cy)).toBeGreaterThan(2);
      }
    }
  });
});

describe('figures', () => {
  it('are bars in a box; an eight has them all, a one has two', () => {
    expect(strokeFigures('8', { x: 0, y: 0 }, 3)).toHaveLength(7);
    expect(strokeFigures('1', { x: 0, y: 0 }, 3)).toHaveLength(2);
    expect(widthOfFigures('240', 3)).toBeCloseTo(6.3, 9);
    for (const { x } of strokeFigures('240', { x: 0, y: 0 }, 3).flat())
      expect(x).toBeLessThanOrEqual(6.3 + 1e-9);
    expect(() => strokeFigures('4x', { x: 0, y: 0 }, 3)).toThrow(/"x" is not a figure/);
  });
});

describe('a card', () => {
  const cells = [60, 75, 95].map((force) => ({ force, speed: 200, passes: 2 }));
  const card = composeCard(makeTestPiece('square'), cells, { x: 10, y: 20 });
  const values = { force: 1, exposureMm: 0.3, speed: 200, passes: 1, offsetMm: 0.25, overcutMm: 0.4 };

  it('repeats each piece as often as its passes, draws its figure once, inside its box', () => {
    const own = card.strokes.filter(({ cell, isLabel }) => cell === 1 && !isLabel);
    expect(own).toHaveLength(2 * 2);
    for (const { x, y } of card.strokes.flatMap(({ points }) => points)) {
      expect(x).toBeGreaterThanOrEqual(card.box.minX - 1e-9);
      expect(x).toBeLessThanOrEqual(card.box.maxX + 1e-9);
      expect(y).toBeLessThanOrEqual(card.box.maxY + 1e-9);
    }
  });

  it('is written with a force for every cell, figures with the gentlest', () => {
    const hpgl = writeCardFile(card, 100, values, plotterFile());
    expect(hpgl.match(/FS(\d+)/g)).toEqual(['FS60', 'FS75', 'FS95']);
  });

  it('is drawn at real size, and as a guide without what is cut', () => {
    const sheet = { widthMm: 150, heightMm: 100 };
    const cut = writeCardSvg(card, sheet, 'cut');
    const guide = writeCardSvg(card, sheet, 'guide');
    expect(cut).toContain('width="150mm" height="100mm" viewBox="0 0 150 100"');
    expect(guide.match(/<path/g)!.length).toBeLessThan(cut.match(/<path/g)!.length);
  });

  it('never lies over what is taken nor outside the scrap, for random scraps, until none is free', () => {
    const size = fc.record({
      widthMm: fc.integer({ min: 5, max: 60 }),
      heightMm: fc.integer({ min: 5, max: 40 }),
    });
    fc.assert(
      fc.property(fc.array(size, { minLength: 1, maxLength: 12 }), (sizes) => {
        const taken: BoxMm[] = [{ minX: 0, minY: 0, maxX: 60, maxY: 50 }];
        for (const one of sizes) {
          const place = findPlace(one, { widthMm: 150, heightMm: 100, marginMm: 4, taken });
          if (!place) continue;
          const box = {
            minX: place.x,
            minY: place.y,
            maxX: place.x + one.widthMm,
            maxY: place.y + one.heightMm,
          };
          expect(box.minX).toBeGreaterThanOrEqual(4);
          expect(box.maxY).toBeLessThanOrEqual(96);
          for (const other of taken) {
            const isOwn =
              box.minX >= other.maxX + 3 ||
              box.maxX <= other.minX - 3 ||
              box.minY >= other.maxY + 3 ||
              box.maxY <= other.minY - 3;
            expect(isOwn).toBe(true);
          }
          taken.push(box);
        }
      }),
      { seed: 12, numRuns: 60 },
    );
  });

  it('says when there is no room, and refuses a scrap of no size', () => {
    const large = measureCard(makeTestPiece('circle'), 6);
    expect(findPlace(large, { widthMm: 60, heightMm: 40, marginMm: 5, taken: [] })).toBeNull();
    expect(() => findPlace(large, { widthMm: 0, heightMm: 40, marginMm: 5, taken: [] })).toThrow(
      /nothing to cut from/,
    );
  });
});
