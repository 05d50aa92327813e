import { ROLES, type Role } from '#core/drawing/roles/lineRoles.ts';
import { writePolylineData } from '#core/drawing/writePathData.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** A line to be written: its layer is its role. */
export interface WrittenLine {
  readonly role: Role;
  readonly points: readonly PointMm[];
}

/** Colours that tell layers apart in any viewer; roles are told by the layer's name. */
export const LAYER_COLOURS: Readonly<Record<Role, string>> = {
  crease: '#94650f',
  score: '#4d5c66',
  kiss: '#1f766f',
  slit: '#b5472f',
  perforated: '#6e3b73',
  through: '#1e2a32',
  art: '#8ea6b4',
  ignore: '#d8d2c4',
};

/**
 * Lines as SVG at real size, a layer for each role, in the order in which they are cut.
 *
 * @example writeSvg([], sheet).includes('width="210mm"') // true
 */
export function writeSvg(
  lines: readonly WrittenLine[],
  sheet: { readonly widthMm: number; readonly heightMm: number },
): string {
  const layers = ROLES.flatMap((role) => {
    const own = lines.filter((line) => line.role === role);
    if (own.length === 0) return [];
    const paths = own.map(({ points }) => `    <path d="${writePolylineData(points)}"/>`);
    const look = `fill="none" stroke="${LAYER_COLOURS[role]}" stroke-width="0.2"`;
    return [`  <g id="${role}" data-name="${role}" ${look}>`, ...paths, '  </g>'];
  });
  const { widthMm, heightMm } = sheet;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}">`,
    ...layers,
    '</svg>',
    '',
  ].join('\n');
}
