import type { CutPass } from '#core/program/cutProgram.ts';
import type { ProgramFacts, ProgramPart } from '#core/program/runProgram.ts';
import { writeBlocks } from '#core/protocol/machineFile.ts';
import type { Block } from '#core/protocol/machineLanguage.ts';
import type { RunStroke } from '#core/program/runStroke.ts';

/**
 * A part from a stroke on in the machine's language: what was acknowledged before is not in it.
 *
 * @param from a stroke of the part, by its number in the run
 * @example writePart([], { ...program.parts[0], passes: [] }, 0, program).length > 0 // true
 */
export function writePart(
  strokes: readonly RunStroke[],
  { passes }: ProgramPart,
  from: number,
  { sheetHeightMm, file }: Pick<ProgramFacts, 'sheetHeightMm' | 'file'>,
): readonly Block[] {
  const left = passes
    .filter(({ to }) => to > from)
    .map((pass): CutPass => ({
      values: pass.values,
      seat: pass.seat,
      panelCut: pass.panelCut,
      strokes: strokes.slice(Math.max(pass.from, from), pass.to),
    }));
  return writeBlocks(left, sheetHeightMm, file);
}
