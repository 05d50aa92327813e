import type { Drawing } from '#core/drawing/drawing.ts';
import { roleOf, type GivenRoles } from '#core/drawing/roles/lineRoles.ts';

/**
 * Whether a drawing has anything to print.
 *
 * @example hasPrint(drawing, given) // false
 */
export function hasPrint({ images, contours }: Drawing, given: GivenRoles): boolean {
  return images.length > 0 || contours.some((line) => roleOf(line, given) === 'art');
}
