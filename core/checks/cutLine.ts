import type { Drawing } from '#core/drawing/drawing.ts';
import { isCutRole, roleOf, type CutRole, type GivenRoles } from '#core/drawing/roles/lineRoles.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { signedAreaMm2 } from '#core/geometry/polygon.ts';

/** A line that is cut, as the checks look at it. */
export interface CutLine {
  readonly id: number;
  readonly role: CutRole;
  readonly isClosed: boolean;
  /** Flattened coarsely; a closed one ends on its first point. */
  readonly points: readonly PointMm[];
  readonly areaMm2: number;
}

/** Checks need no cutting tolerance, mm. */
const LOOK_MM = 0.05;
/**
 * The lines that are cut, as the checks look at them.
 *
 * @example listCutLines(drawing, given).map(({ role }) => role) // ['through', 'kiss']
 */
export function listCutLines({ contours }: Pick<Drawing, 'contours'>, given: GivenRoles): readonly CutLine[] {
  return contours.flatMap((line): readonly CutLine[] => {
    const role = roleOf(line, given);
    if (!isCutRole(role)) return [];
    const points = flattenContour(line.contour, LOOK_MM);
    if (points.length < 2) return [];
    const { isClosed } = line.contour;
    return [{ id: line.id, role, isClosed, points, areaMm2: isClosed ? Math.abs(signedAreaMm2(points)) : 0 }];
  });
}
