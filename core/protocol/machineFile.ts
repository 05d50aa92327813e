import type { CutPass, CutProgram, FileOptions, SheetPlacing } from '#core/program/cutProgram.ts';
import { carriedOf, findLanguage } from '#core/protocol/findLanguage.ts';
import type { Block } from '#core/protocol/machineLanguage.ts';
import type { Machine } from '#core/station/machine.ts';

/**
 * The options that follow from a machine's facts.
 *
 * @example fileOptionsOf(machine).mmPerSPerUnit // 1
 */
export function fileOptionsOf(
  machine: Pick<Machine, 'language' | 'numbersOwner' | 'speedScale'>,
  placing?: SheetPlacing,
): FileOptions {
  const options = {
    language: machine.language,
    carries: carriedOf(machine),
    mmPerSPerUnit: machine.speedScale.mmPerSPerUnit,
  };
  return placing ? { ...options, placing } : options;
}

/**
 * Writes passes in a machine's language.
 *
 * @param sheetHeightMm turns drawing coordinates (y downwards) into the machine's
 * @returns blocks in the order they go out
 * @example writeBlocks([], 100, fileOptionsOf(machine)).length > 0 // true
 */
export function writeBlocks(
  passes: readonly CutPass[],
  sheetHeightMm: number,
  { language, ...facts }: FileOptions,
): readonly Block[] {
  const program: CutProgram = { passes, sheetHeightMm, ...facts };
  return findLanguage(language).write(program, language.options);
}

/**
 * The same as one text, to be saved or carried.
 *
 * @example writeMachineFile([], 100, fileOptionsOf(machine)).length > 0 // true
 */
export function writeMachineFile(
  passes: readonly CutPass[],
  sheetHeightMm: number,
  options: FileOptions,
): string {
  return writeBlocks(passes, sheetHeightMm, options)
    .map(({ text }) => text)
    .join('');
}
