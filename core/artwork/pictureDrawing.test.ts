import { expect, it } from 'vitest';
import { writePictureSvg } from '#core/artwork/pictureDrawing.ts';
import { readDrawing } from '#core/artwork/readDrawing.ts';
import { guessRoles, rolesOf } from '#core/drawing/roles/guessRoles.ts';
import { boundContour } from '#core/geometry/box.ts';
import { squareContour } from '#core/tests/exampleScope.ts';

const svg = writePictureSvg({
  image: 'data:image/png;base64,AAAA',
  widthMm: 50.8,
  heightMm: 25.4,
  contours: [squareContour],
});

it('is read back at real size: the picture as art, its outline as a line', () => {
  const drawing = readDrawing('svg', svg);
  expect([drawing.widthMm, drawing.heightMm]).toEqual([50.8, 25.4]);
  expect(drawing.images.map(({ toMm }) => toMm)).toEqual([[50.8, 0, 0, 25.4, 0, 0]]);
  expect(drawing.contours).toHaveLength(1);
  expect(boundContour(drawing.contours[0]!.contour)).toEqual({ minX: 0, minY: 0, maxX: 10, maxY: 10 });
  expect(drawing.leftOut).toEqual([]);
});

it.each([
  ['a sticker on a desk machine', { canKiss: true, isRollFed: false, canCrease: false }, 'kiss'],
  ['card on a desk machine', { canKiss: false, isRollFed: false, canCrease: true }, 'through'],
  ['card on a roll', { canKiss: false, isRollFed: true, canCrease: false }, 'perforated'],
] as const)('is guessed to be cut around: %s', (_, facts, role) => {
  expect(Object.values(rolesOf(guessRoles(readDrawing('svg', svg), facts)))).toEqual([role]);
});
