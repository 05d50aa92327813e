import type { Drawing } from '#core/drawing/drawing.ts';

/**
 * The next line id that no line of a drawing has.
 *
 * @example firstFreeId(drawing) // 2
 */
export function firstFreeId({ contours }: Pick<Drawing, 'contours'>): number {
  return contours.reduce((most, { id }) => Math.max(most, id), -1) + 1;
}
