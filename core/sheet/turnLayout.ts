import type { Layout } from '#core/sheet/layout.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';

/**
 * A layout with every sheet turned end for end: what lay at the end that leads lies at the other.
 *
 * @example turnLayout({ ...layout, placements: [{ xMm: 0, yMm: 10, turnDeg: 0 }] }, sheet).placements[0] // { xMm: 210, yMm: 287, turnDeg: 180 }
 */
export function turnLayout(
  layout: Layout,
  { widthMm, heightMm }: Pick<Sheet, 'widthMm' | 'heightMm'>,
): Layout {
  return {
    ...layout,
    placements: layout.placements.map((placement) => ({
      ...placement,
      xMm: widthMm - placement.xMm,
      yMm: heightMm - placement.yMm,
      turnDeg: placement.turnDeg >= 180 ? placement.turnDeg - 180 : placement.turnDeg + 180,
    })),
  };
}
