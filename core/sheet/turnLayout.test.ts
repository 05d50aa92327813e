import { expect, it } from 'vitest';
import { PLAIN_LAYOUT } from '#core/sheet/chooseSheet.ts';
import { turnLayout } from '#core/sheet/turnLayout.ts';

const sheet = { widthMm: 210, heightMm: 297 };
const layout = {
  ...PLAIN_LAYOUT,
  placements: [
    { piece: 0, sheet: 0, xMm: 30, yMm: 40, turnDeg: 90 },
    { piece: 1, sheet: 1, xMm: 100, yMm: 20, turnDeg: 225 },
  ],
};

it('puts what lay at one end of a sheet at the other, and back', () => {
  const turned = turnLayout(layout, sheet);
  expect(turned.placements[0]).toEqual({ piece: 0, sheet: 0, xMm: 180, yMm: 257, turnDeg: 270 });
  expect(turned.placements[1]!.turnDeg).toBe(45);
  expect(turnLayout(turned, sheet)).toEqual(layout);
});
