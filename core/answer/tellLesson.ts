import type { Answer } from '#core/answer/composeAnswer.ts';
import { forceUnit, gfToForce, type ForceScale } from '#core/units/forceScale.ts';

/** Shares of being right nearer than this are the same to anybody who cuts. */
const SAME_CHANCE = 0.02;

/**
 * What the last runs taught, in one sentence: how the best force, the forces that are sure and the chance of the set
 * force differ from what the test cuts alone would say.
 *
 * @param taught the answer with the runs
 * @param untaught the answer to the same question from the test cuts alone
 * @param runs how many passes of graded or noted runs were counted, above 0
 * @example tellLesson(answer, answer, 1, gramScale).startsWith('One pass in a run') // true
 */
export function tellLesson(taught: Answer, untaught: Answer, runs: number, scale: ForceScale): string {
  const amount = (figures: string) => (forceUnit(scale) === 'gf' ? `${figures} gf` : `level ${figures}`);
  const count = runs === 1 ? 'One pass in a run' : `${runs} passes in runs`;
  const sureOf = ({ window: { sure } }: Answer) =>
    sure && amount(`${gfToForce(sure.fromGf, scale)} to ${gfToForce(sure.toGf, scale)}`);
  const [before, now] = [sureOf(untaught), sureOf(taught)];
  const isMoved = taught.bestForce !== untaught.bestForce;
  const best = isMoved
    ? `the best force goes from ${untaught.bestForce} to ${amount(String(taught.bestForce))}`
    : `the best force stays ${amount(String(taught.bestForce))}`;
  if (now !== before) return `${count}: ${best}; ${tellSure(before, now)}.`;
  const gain = taught.outlook.right - untaught.outlook.right;
  const chance = `right ${Math.round(taught.outlook.right * 100)} times in 100`;
  if (!isMoved && Math.abs(gain) < SAME_CHANCE) {
    return `${count}, and ${untaught.window.sure ? 'nothing new: they agree with the rest' : 'no force is sure yet'}.`;
  }
  return `${count}: ${best}; the set force is now ${chance}, ${gain < 0 ? 'less' : 'more'} than without them.`;
}

function tellSure(before: string | null, now: string | null): string {
  if (now === null) return `what was sure before, ${before}, no longer is`;
  return before === null ? `now ${now} is sure` : `sure is now ${now}, before ${before}`;
}
