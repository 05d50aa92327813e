import type { RunStroke } from '#core/program/runStroke.ts';
import type { StrokeOutcome } from '#core/run/run.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';

/**
 * How deep each cell of a test card was cut, by what was seen of its last pass: the grade along most of its lines. Cells
 * that nobody saw, or that are not cut yet, are left out.
 *
 * @returns grades by the cell's number, from 0
 * @example gradesOfCells([], []).size // 0
 */
export function gradesOfCells(
  strokes: readonly RunStroke[],
  outcomes: readonly StrokeOutcome[],
): ReadonlyMap<number, DepthGrade> {
  const passes = new Map<number, number>();
  const shares = new Map<number, Map<DepthGrade, number>>();
  for (const { index, spans } of outcomes) {
    const stroke = strokes[index];
    if (!stroke || stroke.isTab || stroke.contourId < 0 || spans.length === 0) continue;
    const { contourId: cell, repeat } = stroke;
    if (repeat < (passes.get(cell) ?? 0)) continue;
    if (repeat > (passes.get(cell) ?? 0)) shares.delete(cell);
    passes.set(cell, repeat);
    const own = shares.get(cell) ?? new Map<DepthGrade, number>();
    for (const { from, to, grade } of spans) own.set(grade, (own.get(grade) ?? 0) + to - from);
    shares.set(cell, own);
  }
  return new Map(
    [...shares].map(([cell, own]) => [
      cell,
      [...own].reduce((best, one) => (one[1] > best[1] ? one : best))[0],
    ]),
  );
}
