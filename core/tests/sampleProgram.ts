import type { RunProgram } from '#core/program/runProgram.ts';
import { plotterFile } from '#core/tests/sampleJob.ts';

/** Only for tests: a program of one part with so many kissed strokes. */
export function sampleProgram(strokes: number): RunProgram {
  const values = { force: 90, exposureMm: 0.35, speed: 200, passes: 1, offsetMm: 0.25, overcutMm: 0 };
  return {
    file: plotterFile(),
    sheetHeightMm: 100,
    bladeMetres: 0,
    sheet: { key: 'sample', family: 'plainVinyl', darkness: 0, layers: [] },
    parts: [
      {
        before: null,
        exposureMm: 0.35,
        passes: [{ operation: 'kiss', values, seat: 1, from: 0, to: strokes }],
      },
    ],
  };
}
