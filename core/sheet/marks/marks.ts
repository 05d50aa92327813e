import type { BoxMm } from '#core/geometry/box.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';
import type { MarkScheme } from '#core/station/machine.ts';

/** One registration mark: an angle of two bars whose outer corner lies nearest to the sheet's. */
export interface Mark {
  readonly corner: PointMm;
  /** Its outline, six corners. */
  readonly outline: readonly PointMm[];
  /** What the sensor needs clear around it. */
  readonly keepOut: BoxMm;
}

/** What a sensor needs clear around a mark, mm. Common practice, no source. */
const CLEAR_MM = 5;

/**
 * The marks of a machine's scheme on a sheet; none for a scheme without. The fourth corner only where it has one.
 *
 * @example listMarks(marks, sheet).length // 4
 */
export function listMarks(
  { scheme, lengthMm, thicknessMm, insetMm }: MarkScheme,
  { widthMm, heightMm }: Pick<Sheet, 'widthMm' | 'heightMm'>,
): readonly Mark[] {
  if (scheme === 'none') return [];
  const corners: readonly (readonly [number, number])[] = [
    [0, 0],
    [1, 0],
    [0, 1],
    [1, 1],
  ];
  const count = scheme === 'fourCorners' ? 4 : 3;
  return corners.slice(0, count).map(([right, down]) => {
    const corner = { x: right ? widthMm - insetMm : insetMm, y: down ? heightMm - insetMm : insetMm };
    const at = (x: number, y: number): PointMm => ({
      x: corner.x + (right ? -x : x),
      y: corner.y + (down ? -y : y),
    });
    const outline = [
      at(0, 0),
      at(lengthMm, 0),
      at(lengthMm, thicknessMm),
      at(thicknessMm, thicknessMm),
      at(thicknessMm, lengthMm),
      at(0, lengthMm),
    ];
    const reach = insetMm + lengthMm + CLEAR_MM;
    const keepOut = {
      minX: right ? widthMm - reach : 0,
      maxX: right ? widthMm : reach,
      minY: down ? heightMm - reach : 0,
      maxY: down ? heightMm : reach,
    };
    return { corner, outline, keepOut };
  });
}
