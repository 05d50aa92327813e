import { expect, it } from 'vitest';
import { noteOf, shelfAfterRun } from '#core/sheet/shelfAfterRun.ts';

const letter = { name: 'Letter', widthMm: 215.9, heightMm: 279.4, marginMm: 6 };
const end = { ...letter, heightMm: 110, wholeHeightMm: 279.4 };
const other = { ...letter, heightMm: 169.4, wholeHeightMm: 279.4, isStarted: true };
const piece = { widthMm: 80, heightMm: 60, note: 'offcut' };

it('the other end of a sheet is kept once for a run, and again for the next', () => {
  const once = shelfAfterRun([piece], end, 'Gulls', 4);
  expect(once).toEqual([
    piece,
    { widthMm: 215.9, heightMm: 279.4, takenMm: 110, note: 'left of Gulls, run 4' },
  ]);
  expect(shelfAfterRun(once, end, 'Gulls', 4)).toBe(once);
  expect(shelfAfterRun(once, end, 'Gulls', 5)).toHaveLength(3);
});

it('kept by hand before, it is the same sheet', () => {
  const byHand = [{ widthMm: 215.9, heightMm: 279.4, takenMm: 110, note: noteOf('Gulls') }];
  expect(shelfAfterRun(byHand, end, 'Gulls', 4).map(({ note }) => note)).toEqual(['left of Gulls, run 4']);
});

it('a started sheet whose other end is cut is gone, one of several', () => {
  const shelf = shelfAfterRun(shelfAfterRun([piece], end, 'Gulls', 4), end, 'Gulls', 5);
  expect(shelfAfterRun(shelf, other, 'Terns', 6).map(({ note }) => note)).toEqual([
    'offcut',
    'left of Gulls, run 5',
  ]);
});

it('a whole sheet, and a started one that nobody kept, leave the shelf as it is', () => {
  const shelf = [piece];
  expect(shelfAfterRun(shelf, letter, 'Gulls', 4)).toBe(shelf);
  expect(shelfAfterRun(shelf, other, 'Gulls', 4)).toBe(shelf);
});
