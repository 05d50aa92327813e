import { chooseLadder, CONFIRMING_CELLS, LADDER_CELLS } from '#core/dialIn/chooseLadder.ts';
import { seeLadder } from '#core/practice/hiddenSheet.ts';
import { READER, remember, type Outcome, type Task } from '#core/practice/ways.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import { credibleEdge, findWindow, targetIndexes } from '#core/threshold/findWindow.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';
import type { SheetBelief, Trial } from '#core/threshold/trial.ts';

/** Ours by card: a ladder over the believed range, then one confirming card around what it found. */
export function byCard(task: Task, belief: SheetBelief, seed: number): Outcome {
  const { sheet, operation, forcesGf, world, random } = task;
  const trials: Trial[] = [];
  const proposalMs: number[] = [];
  const model = remember(seed);
  const fit = () => model.fit({ belief, conditions: sheet.conditions }, trials);
  for (const [load, cells] of [LADDER_CELLS, CONFIRMING_CELLS].entries()) {
    const started = performance.now();
    const forces = chooseLadder(fit(), operation, forcesGf, cells);
    proposalMs.push(performance.now() - started);
    const grades = seeLadder(sheet, forces, world, random);
    forces.forEach((forceGf, cell) =>
      trials.push({ ...sheet.conditions, forceGf, grade: grades[cell] as DepthGrade, load, reader: READER }),
    );
  }
  const posterior = fit();
  const { forceGf, right } = findWindow(posterior, operation, forcesGf).best;
  return { cuts: trials.length, loads: 2, keptGf: forceGf, claimed: right, trials, posterior, proposalMs };
}

/** No cut at all: what the prediction alone would keep. */
export function predictOnly(task: Task, belief: SheetBelief, seed: number): Outcome {
  const posterior = sheetModel(seed).fit({ belief, conditions: task.sheet.conditions }, []);
  const { forceGf, right } = findWindow(posterior, task.operation, task.forcesGf).best;
  return { cuts: 0, loads: 0, keptGf: forceGf, claimed: right, trials: [], posterior, proposalMs: [] };
}

/** For each edge of the target: whether the true one lies inside its 5 to 95 % interval. */
export function countCovered({ sheet, operation }: Task, posterior: ThresholdPosterior): readonly boolean[] {
  const target = targetIndexes(posterior, operation);
  return [target.first - 1, target.last].map((edge) => {
    const { lowGf, highGf } = credibleEdge(posterior, edge);
    const truthGf = sheet.edgesGf[edge] as number;
    return truthGf >= lowGf && truthGf <= highGf;
  });
}
