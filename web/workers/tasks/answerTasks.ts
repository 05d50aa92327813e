import { itemAt } from '#core/collections/itemAt.ts';
import { compareWays, listWays, type WayOutlook } from '#core/dialIn/compareWays.ts';
import { estimateEffort } from '#core/dialIn/estimateEffort.ts';
import { seedFromText } from '#core/random/seededRandom.ts';
import { believe, composeAnswer, type Answer } from '#core/answer/composeAnswer.ts';
import { findWindow, outlookAt, targetIndexes } from '#core/threshold/findWindow.ts';
import { predictGrades } from '#core/threshold/predictGrades.ts';
import { forcesAround } from '#core/threshold/spreadForces.ts';
import { forceToGf, gfToForce } from '#core/units/forceScale.ts';
import type { AskedDialIn, DialInQuestion } from '#web/workers/tasks/dialInQuestion.ts';
import { explainDialIn } from '#web/workers/tasks/explainDialIn.ts';
import { rememberingModel } from '#web/workers/tasks/rememberingModel.ts';

/** {@link composeAnswer} with the fits that this thread remembers. */
export function answerTask(asked: Parameters<typeof composeAnswer>): Answer | null {
  const [station, operation, known, cuts, context = {}] = asked;
  return composeAnswer(station, operation, known, cuts, { ...context, makeModel: rememberingModel });
}

function ask(question: DialInQuestion): AskedDialIn {
  const { dialIn, station, cuts, belief, runs } = question;
  const context = { belief, runs, makeModel: rememberingModel };
  return { ...question, ...believe(station, station.loaded, dialIn, cuts, context) };
}

/** The forces that matter for a search, ascending, in gf. */
function forcesOf({ posterior, trials, station, dialIn }: AskedDialIn) {
  const { forceScale } = station.machine;
  const cutAt = trials.map(({ forceGf }) => forceGf);
  return forcesAround(posterior, targetIndexes(posterior, dialIn.operation).last, cutAt, forceScale);
}

/** The window, and the chance of every grade at every force that matters. */
export function windowTask(question: DialInQuestion) {
  const asked = ask(question);
  const { posterior, station, dialIn } = asked;
  const target = targetIndexes(posterior, dialIn.operation);
  const forcesGf = forcesOf(asked);
  return {
    window: findWindow(posterior, dialIn.operation, forcesGf),
    chances: forcesGf.map((forceGf) => ({
      force: gfToForce(forceGf, station.machine.forceScale),
      forceGf,
      outlook: outlookAt(posterior, target, forceGf),
      grades: [...predictGrades(posterior, forceGf)].map((chance, index) => ({
        grade: itemAt(posterior.grades, index),
        chance,
      })),
    })),
  };
}

/** What cutting one at a time and a card would cost from here. */
export function effortTask(question: DialInQuestion) {
  const asked = ask(question);
  const { posterior, station, dialIn } = asked;
  const machine = { kind: station.machine.kind, sheetWidthMm: dialIn.scrap.widthMm };
  const seed = seedFromText(`${dialIn.id}`);
  return estimateEffort(posterior, dialIn.operation, forcesOf(asked), machine, seed);
}

/** Other ways of cutting with what each would gain. */
export function waysTask(question: DialInQuestion) {
  const asked = ask(question);
  const { model, trials, station, dialIn } = asked;
  const { operation } = dialIn;
  const ways = listWays(asked.question.conditions, operation);
  const compared = compareWays(
    model,
    asked.question,
    trials,
    operation,
    (posterior) => forcesOf({ ...asked, posterior }),
    ways,
  );
  return compared.map((way, index) => ({
    ...way,
    words: index === 0 ? 'as now' : wordWay(way, asked.question.conditions),
    force: gfToForce(way.best.forceGf, station.machine.forceScale),
  }));
}

function wordWay(way: WayOutlook, now: { readonly passes: number; readonly speedMmPerS: number }): string {
  if (way.isFreshBlade) return 'a fresh blade';
  if (way.isExposureStopped) return 'exposure that stops short of the mat';
  if (way.passes !== now.passes) return way.passes === 1 ? 'one heavy pass' : `${way.passes} lighter passes`;
  return 'half the speed';
}

/** What moved the answer, and by how much. */
export function reasonsTask(question: DialInQuestion) {
  return explainDialIn(ask(question), question.dialIn.operation);
}

/** What a force rests on at the moment it is kept. */
export function keptTask(given: { readonly question: DialInQuestion; readonly force: number }) {
  const { force, question } = given;
  const { posterior, trials, cuts, station, dialIn } = ask(question);
  const forceGf = forceToGf(force, station.machine.forceScale);
  const { best, lowerEdge, upperEdge } = findWindow(posterior, dialIn.operation, [forceGf]);
  const { under, right, over } = best;
  return {
    model: posterior.model,
    trialCount: trials.length,
    cutIds: cuts.map(({ id }) => id),
    force,
    right,
    under,
    over,
    lowerEdgeGf: lowerEdge,
    upperEdgeGf: upperEdge,
  };
}
