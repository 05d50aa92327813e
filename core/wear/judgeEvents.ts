import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import type { SheetPlace } from '#core/knowledge/evidence.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import { predictGrades } from '#core/threshold/predictGrades.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';
import type { Priors } from '#core/threshold/thresholdPriors.ts';
import type { Trial } from '#core/threshold/trial.ts';
import { gradeResidual } from '#core/wear/gradeResidual.ts';

const SEED = 5;

/**
 * Residuals of the graded cuts of one sheet on one machine: each against what was expected from those before it, so
 * that nothing is judged by itself.
 *
 * @param trials oldest first; a trial that only names a range of grades gives no residual
 * @param wanted which of them to judge, by index
 * @returns by index
 * @example judgeEvents(place, trials, [], null, COMMON_PRIORS).size // 0
 */
export function judgeEvents(
  place: SheetPlace,
  trials: readonly Trial[],
  wanted: readonly number[],
  knowledge: Knowledge | null,
  priors: Priors,
): ReadonlyMap<number, number> {
  const belief = sheetPrior(place, knowledge, { learnt: [], all: [] }, priors);
  const model = sheetModel(SEED);
  const judged = new Map<number, number>();
  for (const index of wanted) {
    const trial = trials[index];
    if (!trial || trial.upTo !== undefined) continue;
    const { passes, speedMmPerS, bladeMetres } = trial;
    const posterior = model.fit(
      { belief, conditions: { passes, speedMmPerS, bladeMetres } },
      trials.slice(0, index),
    );
    const seen = posterior.grades.indexOf(trial.grade);
    if (seen >= 0) judged.set(index, gradeResidual(predictGrades(posterior, trial.forceGf), seen));
  }
  return judged;
}
