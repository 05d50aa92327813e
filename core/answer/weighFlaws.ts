import type { TestCut } from '#core/dialIn/testCut.ts';
import type { Flaw } from '#core/stack/depthGrade.ts';
import type { ForceOutlook } from '#core/threshold/findWindow.ts';

/** Marks of a touch too much force, at a depth that is right. Common practice, no source. */
const TOO_MUCH: ReadonlySet<Flaw> = new Set(['fuzzy', 'torn']);
/** A cut that is right but flawed is worth so much less than a clean one. */
const FLAW_COST = 0.5;

/** Where no lower cut was clean, a flaw is gone at so much less force. Common practice, no source. */
const FADES_OVER = 1.2;

type SeenCut = Pick<TestCut, 'forceGf' | 'grade' | 'flaws'>;

/**
 * The best force when flaws count too. From the highest right cut that left none up to the lowest that left one, a flaw
 * gets ever more likely (evenly in ln force); beyond, it is certain. Below what came out clean nothing changes.
 *
 * @param outlooks of the settable forces, ascending, at least one
 * @param best the one that is right most often
 * @param cuts of the same passes
 * @param wanted grades that are right
 * @example weighFlaws([{ forceGf: 75, under: 0, right: 1, over: 0 }], { forceGf: 75, under: 0, right: 1, over: 0 }, [], [3]).forceGf // 75
 */
export function weighFlaws(
  outlooks: readonly ForceOutlook[],
  best: ForceOutlook,
  cuts: readonly SeenCut[],
  wanted: readonly number[],
): ForceOutlook {
  const right = cuts.filter(({ grade }) => wanted.includes(grade));
  const isFlawed = ({ flaws }: SeenCut) => flaws.some((flaw) => TOO_MUCH.has(flaw));
  const flawedGf = Math.min(...right.filter(isFlawed).map(({ forceGf }) => forceGf));
  if (!Number.isFinite(flawedGf)) return best;
  const cleanGf = Math.max(
    ...right.filter((cut) => !isFlawed(cut) && cut.forceGf < flawedGf).map(({ forceGf }) => forceGf),
    flawedGf / FADES_OVER,
  );
  const worth = ({ forceGf, right: chance }: ForceOutlook) => {
    const share = Math.log(forceGf / cleanGf) / Math.log(flawedGf / cleanGf);
    return chance * (1 - FLAW_COST * Math.min(1, Math.max(0, share)));
  };
  return outlooks.reduce((found, one) => (worth(one) > worth(found) ? one : found), best);
}
