import { itemAt } from '#core/collections/itemAt.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import { ROLES, type Role } from '#core/drawing/roles/lineRoles.ts';
import type { WrittenLine } from '#core/drawing/svg/writeSvg.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';

/** Colour index of each layer: red, blue and so on, as the DXF palette counts them. */
const COLOURS: Readonly<Record<Role, number>> = {
  crease: 30,
  score: 8,
  kiss: 3,
  slit: 1,
  perforated: 6,
  through: 7,
  art: 4,
  ignore: 9,
};

/**
 * Lines as DXF (R12, text form) in mm, a layer for each role, y upwards from the sheet's lower edge.
 *
 * Source: DXF reference, ENTITIES section.
 *
 * @example writeDxf([], 100).includes('EOF') // true
 */
export function writeDxf(lines: readonly WrittenLine[], sheetHeightMm: number): string {
  const roles = ROLES.filter((role) => lines.some((line) => line.role === role));
  const groups: (readonly [number, string | number])[] = [
    [0, 'SECTION'],
    [2, 'HEADER'],
    [9, '$ACADVER'],
    [1, 'AC1009'],
    [9, '$INSUNITS'],
    [70, 4],
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'TABLES'],
    [0, 'TABLE'],
    [2, 'LAYER'],
    [70, roles.length],
    ...roles.flatMap((role): readonly (readonly [number, string | number])[] => [
      [0, 'LAYER'],
      [2, role.toUpperCase()],
      [70, 0],
      [62, COLOURS[role]],
      [6, 'CONTINUOUS'],
    ]),
    [0, 'ENDTAB'],
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'ENTITIES'],
    ...lines.flatMap((line) => writePolyline(line, sheetHeightMm)),
    [0, 'ENDSEC'],
    [0, 'EOF'],
  ];
  return groups.map(([code, value]) => `${code}\n${value}\n`).join('');
}

function writePolyline(
  { role, points }: WrittenLine,
  sheetHeightMm: number,
): readonly (readonly [number, string | number])[] {
  const first = itemAt(points, 0);
  const last = points.at(-1) as PointMm;
  const isClosed = points.length > 3 && distanceMm(first, last) < LENGTH_MM;
  const corners = isClosed ? points.slice(0, -1) : points;
  const layer = role.toUpperCase();
  return [
    [0, 'POLYLINE'],
    [8, layer],
    [66, 1],
    [70, isClosed ? 1 : 0],
    ...corners.flatMap(({ x, y }): readonly (readonly [number, string | number])[] => [
      [0, 'VERTEX'],
      [8, layer],
      [10, figure(x)],
      [20, figure(sheetHeightMm - y)],
    ]),
    [0, 'SEQEND'],
    [8, layer],
  ];
}

function figure(value: number): string {
  return String(Number(value.toFixed(4)));
}
