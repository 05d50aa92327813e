/** Offset that blades of an angle usually have, mm, by upper angle. Common practice, no source. */
const USUAL_OFFSETS: readonly (readonly [upToDeg: number, offsetMm: number])[] = [
  [35, 0.2],
  [50, 0.25],
  [90, 0.5],
];

/**
 * The offset to start from for a blade of this angle, mm, until a corner piece tells better.
 *
 * @example usualOffsetMm(45) // 0.25
 */
export function usualOffsetMm(angleDeg: number): number {
  return (USUAL_OFFSETS.find(([upTo]) => angleDeg <= upTo) ?? [0, 0.5])[1];
}

/**
 * Overcut that closes a contour at full depth, mm: the edge rises from the tip by its angle, so at the start the cut
 * is whole only after the edge's run over the depth, `depth / tan(angle)`; the tip trails by the offset beside it.
 *
 * @param depthMm how deep the operation cuts, mm
 * @param angleDeg of the edge against the sheet, 0 < angle <= 90
 * @example overcutFor(0.151, 45, 0.25) // 0.4
 */
export function overcutFor(depthMm: number, angleDeg: number, offsetMm: number): number {
  const run = angleDeg >= 89.9 ? 0 : depthMm / Math.tan((angleDeg * Math.PI) / 180);
  return Math.min(10, Number((offsetMm + run).toFixed(2)));
}
