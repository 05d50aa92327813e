import type { Spot } from '#devices/cutter/instruction.ts';

/** A turn, a scale and a shift, as six numbers: x' = a x + c y + e, y' = b x + d y + f, y downwards. */
export type SheetMap = readonly [number, number, number, number, number, number];

/** Where a spot goes. */
export function applyMap([a, b, c, d, e, f]: SheetMap, { xMm, yMm }: Spot): Spot {
  return { xMm: a * xMm + c * yMm + e, yMm: b * xMm + d * yMm + f };
}

/** The map that does `inner` first. */
export function composeMaps([a, b, c, d, e, f]: SheetMap, [p, q, r, s, t, u]: SheetMap): SheetMap {
  return [a * p + c * q, b * p + d * q, a * r + c * s, b * r + d * s, a * t + c * u + e, b * t + d * u + f];
}

/** The way back. @param map one that flattens nothing */
export function invertMap([a, b, c, d, e, f]: SheetMap): SheetMap {
  const area = a * d - b * c;
  return [d / area, -b / area, -c / area, a / area, (c * f - d * e) / area, (b * e - a * f) / area];
}
