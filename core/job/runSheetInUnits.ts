import type { RunSheet } from '#core/job/composeRunSheet.ts';
import type { RunStep } from '#core/job/runStep.ts';
import { inchFigure, inUnits } from '#core/units/inUnits.ts';
import type { UnitSystem } from '#core/units/length.ts';

/**
 * A run sheet in the units of a bench. What people typed stays as they typed it, and a speed stays as the panel has it.
 *
 * @example runSheetInUnits({ title: 'Gulls', subtitle: 'A5, 148 × 210 mm', sections: [], cautions: [], ownWords: [] }, 'inch').subtitle // 'A5, 5.8 × 8.3 in'
 */
export function runSheetInUnits(sheet: RunSheet, system: UnitSystem): RunSheet {
  if (system === 'metric') return sheet;
  const say = (words: string) => inUnits(words, system, sheet.ownWords);
  return {
    ...sheet,
    title: say(sheet.title),
    subtitle: say(sheet.subtitle),
    sections: sheet.sections.map(({ heading, steps }) => ({
      heading,
      steps: steps.map(({ words, reason, figures }) => ({
        words: say(words),
        reason: say(reason),
        figures: figures.map(figureInInches),
      })),
    })),
    cautions: sheet.cautions.map(say),
  };
}

/** A big figure: a length is converted, what is dialled at a panel is not. */
function figureInInches(figure: RunStep['figures'][number]): RunStep['figures'][number] {
  const [value, unit] = figure;
  return /^mm(?!\/)/.test(unit) ? [inchFigure(value, 'mm'), unit.replace('mm', 'in')] : figure;
}
