import { describe, expect, it } from 'vitest';
import { readDrawing } from '#core/artwork/readDrawing.ts';
import { AppError } from '#core/errors/appError.ts';
import { entities, line, pairs, svg } from '#core/tests/heavyFiles.ts';

describe('figures that are none', () => {
  it.each([
    ['a stroke of 1e400', 'svg', svg('<path stroke="red" stroke-width="1e400" d="M1 1H9"/>')],
    [
      'a picture 1e400 wide',
      'svg',
      svg(`${line}<image width="1e400" height="3" href="data:image/png;base64,AAAA"/>`),
    ],
    ['a bulge of 1e200', 'dxf', entities(pairs(0, 'LWPOLYLINE', 10, 0, 20, 0, 42, '1e200', 10, 9, 20, 9))],
  ] as const)('%s ends at the reader', (_, format, text) => {
    try {
      const { contours, images } = readDrawing(format, text);
      for (const { strokeWidthMm } of contours) expect(Number.isFinite(strokeWidthMm ?? 0)).toBe(true);
      for (const { toMm } of images) expect(toMm.every(Number.isFinite)).toBe(true);
    } catch (error) {
      expect(error).toBeInstanceOf(AppError);
    }
  });
});
