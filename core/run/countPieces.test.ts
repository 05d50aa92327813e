import { expect, it } from 'vitest';
import { countPieces } from '#core/run/countPieces.ts';
import type { Run } from '#core/run/run.ts';

const ring = (operation: string, contourId: number, x: number, y: number, size: number) => ({
  operation,
  isTab: false,
  contourId,
  repeat: 0,
  points: [
    { x, y },
    { x: x + size, y },
    { x: x + size, y: y + size },
    { x, y: y + size },
    { x, y },
  ],
});
const run = (rings: readonly ReturnType<typeof ring>[], upTo = rings.length) =>
  ({
    strokes: rings,
    outcomes: Array.from({ length: upTo }, (_, index) => ({ index, spans: [] })),
  }) as unknown as Run;

it('counts outlines that lie in no other: a hole is none, and a second pass counts once', () => {
  const tag = [ring('through', 1, 0, 0, 40), ring('through', 2, 10, 10, 5), ring('through', 1, 0, 0, 40)];
  expect(countPieces(run([...tag, ring('through', 3, 60, 0, 40)]))).toBe(2);
});

it('counts what is kissed where nothing is freed, and the carrier where it is', () => {
  const stickers = [ring('kiss', 1, 5, 5, 20), ring('kiss', 2, 30, 5, 20), ring('kiss', 3, 10, 10, 4)];
  expect(countPieces(run(stickers))).toBe(2);
  expect(countPieces(run([...stickers, ring('perforated', 9, 0, 0, 60)]))).toBe(1);
});

it('counts what was reached, where a run ended early', () => {
  const rings = [0, 1, 2, 3].map((place) => ring('through', place, place * 50, 0, 40));
  expect(countPieces(run(rings, 3))).toBe(3);
  expect(countPieces(run(rings, 0))).toBe(0);
});
