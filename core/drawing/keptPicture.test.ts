import { expect, it } from 'vitest';
import {
  keptPictureSize,
  listKeptPictures,
  listLongPictures,
  nameKeptPicture,
  replaceKeptPictures,
} from '#core/drawing/keptPicture.ts';
import { readDrawing } from '#core/artwork/readDrawing.ts';

const kept = nameKeptPicture('ab'.repeat(32), { widthPx: 1414, heightPx: 700 }, 'jpeg');
const svg = (address: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="50mm" height="25mm" viewBox="0 0 50 25"><image href="${address}" width="50" height="25"/><path d="M1 1H9V9Z"/></svg>`;

it('a kept picture says how large it is, and is found in a file', () => {
  expect(keptPictureSize(kept)).toEqual({ widthPx: 1414, heightPx: 700 });
  expect(listKeptPictures(svg(kept) + svg(kept))).toEqual([kept]);
  expect(replaceKeptPictures(svg(kept), () => 'data:image/png;base64,AA==')).toBe(
    svg('data:image/png;base64,AA=='),
  );
});

it('a drawing reads the same whether its picture is in it or kept apart', () => {
  const inline = readDrawing('svg', svg('data:image/jpeg;base64,AAAA'));
  const apart = readDrawing('svg', svg(kept));
  expect(apart.images).toEqual([{ ...inline.images[0], data: kept }]);
  expect({ ...apart, images: [] }).toEqual({ ...inline, images: [] });
});

it('what only looks like one is a picture outside the file', () => {
  const { images, leftOut } = readDrawing('svg', svg('picture:../../etc/passwd'));
  expect(images).toEqual([]);
  expect(leftOut.join()).toMatch(/pictures outside the file/);
});

it('only long pictures are worth a place of their own, line breaks and all', () => {
  const long = `data:image/png;base64,${'iVBO\n '.repeat(5000)}iVBO`;
  expect(listLongPictures(svg('data:image/png;base64,AAAA'))).toEqual([]);
  expect(listLongPictures(svg(long) + svg(long))).toEqual([long]);
});
