import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import type { ProgramPart } from '#core/program/runProgram.ts';
import type { RunStroke } from '#core/program/runStroke.ts';

/** A lift, a way to the next stroke and a plunge, at the longest. Common practice, no source. */
const BETWEEN_SECONDS = 2;

/**
 * How long a machine may be busy with strokes before it needs more of them: at their speed, and as long again for
 * slowing down at corners.
 *
 * @returns seconds of the strokes before one that is counted from the first that was sent
 */
export function strokeSeconds(
  strokes: readonly RunStroke[],
  part: ProgramPart,
  from: number,
  mmPerSPerUnit: number,
): (before: number) => number {
  return (before) => {
    let seconds = 0;
    for (const pass of part.passes) {
      const mmPerS = pass.values.speed * mmPerSPerUnit;
      for (let index = Math.max(pass.from, from); index < Math.min(pass.to, from + before); index++) {
        const length = measurePolyline(strokes[index]?.points ?? []);
        seconds += (2 * length) / Math.max(1, mmPerS) + BETWEEN_SECONDS;
      }
    }
    return seconds;
  };
}
