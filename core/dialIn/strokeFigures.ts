import type { PointMm } from '#core/geometry/point.ts';

/** The strokes of each figure in a box one unit wide and two high, y downwards: seven bars, as on a clock. */
const BARS: Readonly<Record<string, readonly [number, number, number, number]>> = {
  top: [0, 0, 1, 0],
  upperLeft: [0, 0, 0, 1],
  upperRight: [1, 0, 1, 1],
  middle: [0, 1, 1, 1],
  lowerLeft: [0, 1, 0, 2],
  lowerRight: [1, 1, 1, 2],
  bottom: [0, 2, 1, 2],
};
const FIGURES: Readonly<Record<string, readonly string[]>> = {
  '0': ['top', 'upperLeft', 'upperRight', 'lowerLeft', 'lowerRight', 'bottom'],
  '1': ['upperRight', 'lowerRight'],
  '2': ['top', 'upperRight', 'middle', 'lowerLeft', 'bottom'],
  '3': ['top', 'upperRight', 'middle', 'lowerRight', 'bottom'],
  '4': ['upperLeft', 'upperRight', 'middle', 'lowerRight'],
  '5': ['top', 'upperLeft', 'middle', 'lowerRight', 'bottom'],
  '6': ['top', 'upperLeft', 'middle', 'lowerLeft', 'lowerRight', 'bottom'],
  '7': ['top', 'upperRight', 'lowerRight'],
  '8': ['top', 'upperLeft', 'upperRight', 'middle', 'lowerLeft', 'lowerRight', 'bottom'],
  '9': ['top', 'upperLeft', 'upperRight', 'middle', 'lowerRight', 'bottom'],
};
/** Room from one figure to the next, in figure widths. */
const ADVANCE = 1.6;

/**
 * A number as straight strokes that a blade or a pen can draw.
 *
 * @param corner upper left corner of the first figure, mm
 * @param heightMm of a figure
 * @throws Error for anything but digits and one point
 * @example strokeFigures('11', { x: 0, y: 0 }, 2).length // 4
 */
export function strokeFigures(
  text: string,
  corner: PointMm,
  heightMm: number,
): readonly (readonly PointMm[])[] {
  const unit = heightMm / 2;
  let x = corner.x;
  const strokes: (readonly PointMm[])[] = [];
  for (const sign of text) {
    if (sign === '.') {
      const y = corner.y + 2 * unit;
      strokes.push([
        { x: x - 0.35 * unit, y },
        { x: x - 0.2 * unit, y },
      ]);
      continue;
    }
    const bars = FIGURES[sign];
    if (!bars) throw new Error(`"${sign}" is not a figure`);
    for (const name of bars) {
      const [fromX, fromY, toX, toY] = BARS[name] as readonly [number, number, number, number];
      strokes.push([
        { x: x + fromX * unit, y: corner.y + fromY * unit },
        { x: x + toX * unit, y: corner.y + toY * unit },
      ]);
    }
    x += ADVANCE * unit;
  }
  return strokes;
}

/**
 * How wide a number is, mm.
 *
 * @example widthOfFigures('11', 2) < widthOfFigures('111', 2) // true
 */
export function widthOfFigures(text: string, heightMm: number): number {
  const digits = [...text].filter((sign) => sign !== '.').length;
  return digits === 0 ? 0 : ((digits - 1) * ADVANCE + 1) * (heightMm / 2);
}
