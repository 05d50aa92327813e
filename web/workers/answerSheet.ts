import { expose } from 'comlink';
import type { TestCut } from '#core/dialIn/testCut.ts';
import {
  composeAnswer,
  type Answer,
  type AnswerContext,
  type KnownSetting,
} from '#core/answer/composeAnswer.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { typedBelief } from '#core/threshold/plainBelief.ts';
import type { Station } from '#core/station/station.ts';
import type { BeliefReply } from '#web/schemas/setting.ts';

/** What the browser's thread is asked: everything an answer follows from. */
export interface AnswerOrder {
  readonly station: Station;
  readonly operation: DepthOperation;
  readonly known: KnownSetting | null;
  readonly cuts: readonly TestCut[];
  readonly context: Pick<AnswerContext, 'passes' | 'speed' | 'exposureMm' | 'runs' | 'harmCuts'>;
  readonly belief: BeliefReply;
}

export type AnswerSheet = (order: AnswerOrder) => Answer | null;

const answerSheet: AnswerSheet = ({ station, operation, known, cuts, context, belief }) => {
  return composeAnswer(station, operation, known, cuts, { ...context, belief: typedBelief(belief) });
};

expose(answerSheet);
