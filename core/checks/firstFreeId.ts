import type { Drawing } from '#core/drawing/drawing.ts';

/**
 * The next line id that no line of a drawing has.
 *
 * @example firstFreeId(drawing) // 2
 */
export function firstFreeId({ contours, idsGiven = 0 }: Pick<Drawing, 'contours' | 'idsGiven'>): number {
  return contours.reduce((most, { id }) => Math.max(most, id), idsGiven - 1) + 1;
}
