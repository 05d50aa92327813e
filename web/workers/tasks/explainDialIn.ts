import { factsOf, type Family } from '#core/stack/families/families.ts';
import { isOfLoaded } from '#core/dialIn/listTrials.ts';
import { GRADE_WORDS } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { credibleEdge, targetIndexes, type CredibleEdge } from '#core/threshold/findWindow.ts';
import { forceUnit, sayForce } from '#core/units/forceScale.ts';
import type { AskedDialIn } from '#web/workers/tasks/dialInQuestion.ts';
import type { ReasonsReply } from '#web/schemas/dialIn.ts';

const EFFECT_WORDS: Readonly<Record<string, string>> = {
  faceCaliper: 'the caliper of its face',
  ink: 'print on it',
  laminate: 'laminate on it',
  darkness: 'its pigment',
  'own:threshold': 'this make, from its other cuts',
};

/**
 * What moved an answer: from the family's usual force through everything known of the sheet and the machine to what
 * the cuts say, and how far each cut alone carries it (the answer without it, compared).
 */
export function explainDialIn(asked: AskedDialIn, operation: DepthOperation): ReasonsReply {
  const { model, question, trials, effects, priors, station, knowledgeId } = asked;
  const { material } = station.loaded;
  const edgeOf = (some: typeof trials): CredibleEdge => {
    const posterior = model.fit(question, some);
    return credibleEdge(posterior, targetIndexes(posterior, operation).first - 1);
  };
  const nowGf = edgeOf(trials);
  const cuts = asked.cuts.filter((cut) => isOfLoaded(cut, station.loaded));
  const runs = trials.length - cuts.length;
  const unit = forceUnit(station.machine.forceScale);
  return {
    usualGf: priors.habits[material.family].usualGf,
    effects: effects.map(({ effect, adds, sd }) => ({
      words: wordEffect(effect, material.family, station.machine.name),
      percent: 100 * (Math.exp(adds) - 1),
      sdPercent: 100 * sd,
    })),
    believedGf: edgeOf([]),
    nowGf,
    cuts: cuts.map((cut, index) => {
      const without = edgeOf(trials.filter((_, place) => place !== runs + index));
      return {
        id: cut.id,
        words: `${sayForce(cut.force, unit)}: ${GRADE_WORDS[cut.grade].word}`,
        percent: 100 * (nowGf.middleGf / without.middleGf - 1),
      };
    }),
    knowledgeId,
    trialCount: trials.length,
  };
}

function wordEffect(effect: string, family: Family, machine: string): string {
  if (effect.startsWith('machine:')) return machine;
  if (effect.startsWith('family:')) return `${factsOf(family).name} against its usual figure`;
  const [, kind, name] = /^own:(condition|lot|colour):(.*)$/.exec(effect) ?? [];
  if (kind === 'condition') return `being ${name}, beyond the usual`;
  if (kind) return `${kind} ${name}`;
  return EFFECT_WORDS[effect] ?? effect;
}
