import type { CutterService } from '#devices/cutter/serveCutter.ts';

/** Only for tests: how often each stroke of a run lies on the sheet of a stand-in, a sheet 100 mm high. */
export function timesCut(
  { state }: CutterService,
  strokes: readonly { readonly points: readonly { readonly x: number; readonly y: number }[] }[],
): readonly number[] {
  return strokes.map(
    ({ points: [first] }) =>
      state.cutter.sheetStrokes.filter(
        ({ path: [spot] }) =>
          spot && first && Math.hypot(spot.xMm - first.x, 100 - spot.yMm - first.y) < 0.03,
      ).length,
  );
}
