import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import type { FileOptions } from '#core/program/cutProgram.ts';
import type { ProgramPart } from '#core/program/runProgram.ts';
import type { RunStroke } from '#core/program/runStroke.ts';

/** How long a machine is at work on what it was given, counted in strokes from the first that was sent. */
export interface StrokeSeconds {
  /** No machine is done with so many strokes sooner: their length at their speed. */
  readonly least: (strokes: number) => number;
  /** So long it may be busy with them: twice that for slowing down at corners, and a lift and a way for each. */
  readonly most: (strokes: number) => number;
}

/** A lift, a way to the next stroke and a plunge, at the longest. Common practice, no source. */
const BETWEEN_SECONDS = 2;
/** Where hands dial the speed they may dial more than is asked for. */
const DIALLED_FASTER = 3;

/** The times of a part from a stroke on. */
export function strokeSeconds(
  strokes: readonly RunStroke[],
  part: ProgramPart,
  from: number,
  { carries, mmPerSPerUnit }: Pick<FileOptions, 'carries' | 'mmPerSPerUnit'>,
): StrokeSeconds {
  const least = [0];
  for (const pass of part.passes) {
    const mmPerS = pass.values.speed * mmPerSPerUnit * (carries.speed ? 1 : DIALLED_FASTER);
    for (let index = Math.max(pass.from, from); index < pass.to; index++) {
      const length = measurePolyline(strokes[index]?.points ?? []);
      least.push((least.at(-1) ?? 0) + length / Math.max(1, mmPerS));
    }
  }
  const at = (count: number) => least[Math.max(0, Math.min(count, least.length - 1))] ?? 0;
  return { least: at, most: (count) => 2 * at(count) + BETWEEN_SECONDS * count };
}
