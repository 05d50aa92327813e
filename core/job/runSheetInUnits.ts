import type { RunSheet } from '#core/job/composeRunSheet.ts';
import type { RunStep } from '#core/job/runStep.ts';
import { inchFigure, inUnits } from '#core/units/inUnits.ts';
import type { UnitSystem } from '#core/units/length.ts';
import { PLAIN_WRITING, writeDecimals, type Writing } from '#core/units/writing.ts';

/**
 * A run sheet in the units of a bench, its decimals as the bench writes them. What people typed stays as they typed it, and a speed stays as the panel has it.
 *
 * @example runSheetInUnits({ title: 'Gulls', subtitle: 'A5, 148 × 210 mm', sections: [], cautions: [], ownWords: [] }, 'inch').subtitle // 'A5, 5.8 × 8.3 in'
 */
export function runSheetInUnits(
  sheet: RunSheet,
  system: UnitSystem,
  writing: Writing = PLAIN_WRITING,
): RunSheet {
  if (system === 'metric' && writing.mark === '.') return sheet;
  const own = sheet.ownWords;
  const say = (words: string) => writeDecimals(inUnits(words, system, own), writing, own);
  const sayFigure = (figure: Figure): Figure => {
    const [value, unit] = system === 'inch' ? figureInInches(figure) : figure;
    return [writeDecimals(value, writing), unit];
  };
  return {
    ...sheet,
    title: say(sheet.title),
    subtitle: say(sheet.subtitle),
    sections: sheet.sections.map(({ heading, steps }) => ({
      heading,
      steps: steps.map(({ words, reason, figures }) => ({
        words: say(words),
        reason: say(reason),
        figures: figures.map(sayFigure),
      })),
    })),
    cautions: sheet.cautions.map(say),
  };
}

type Figure = RunStep['figures'][number];

/** A big figure: a length is converted, what is dialled at a panel is not. */
function figureInInches(figure: Figure): Figure {
  const [value, unit] = figure;
  return /^mm(?!\/)/.test(unit) ? [inchFigure(value, 'mm'), unit.replace('mm', 'in')] : figure;
}
