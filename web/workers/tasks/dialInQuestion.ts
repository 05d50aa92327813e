import type { SheetBelief } from '#core/threshold/trial.ts';
import type { SheetQuestion } from '#core/answer/composeAnswer.ts';
import type { DialIn } from '#core/dialIn/dialIn.ts';
import type { RunEvidence } from '#core/dialIn/listTrials.ts';
import type { TestCut } from '#core/dialIn/testCut.ts';
import type { ThresholdEffect } from '#core/knowledge/sheetPrior.ts';
import type { LoadedStation } from '#core/station/station.ts';
import type { Priors } from '#core/threshold/thresholdPriors.ts';

/** What is asked of a search, as plain data. */
export interface DialInQuestion {
  readonly dialIn: DialIn;
  readonly station: LoadedStation;
  /** Test cuts of the condition on the machine, of any lot and colour, oldest first. */
  readonly cuts: readonly TestCut[];
  readonly runs: readonly RunEvidence[];
  readonly belief: SheetBelief;
  readonly effects: readonly ThresholdEffect[];
  readonly priors: Priors;
  readonly knowledgeId: number;
}

/** A search with the model's answer to it. */
export type AskedDialIn = DialInQuestion & SheetQuestion;
