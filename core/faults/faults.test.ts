import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ACTION_FACTS, ACTIONS } from '#core/faults/faultActions.ts';
import { FINDINGS, FINDING_FACTS } from '#core/faults/findings.ts';
import { type Symptom, SYMPTOMS } from '#core/faults/symptoms.ts';
import { type Cause, CAUSES, factsOfCause, LEAK } from '#core/faults/causes.ts';
import { proposeNumber } from '#core/faults/proposeNumber.ts';
import { rankActions } from '#core/faults/rankActions.ts';
import { nextQuestion, rankCauses } from '#core/faults/rankCauses.ts';

const first = (symptoms: readonly Symptom[], known = {}, learnt = {}) =>
  rankCauses(symptoms, known, learnt)[0]!.cause;
const chanceOf = (cause: Cause, ...asked: Parameters<typeof rankCauses>) =>
  rankCauses(...asked).find((one) => one.cause === cause)!.chance;

describe('rankCauses', () => {
  it('gives chances that sum to 1 for anything seen and known', () => {
    const known = fc.dictionary(fc.constantFrom(...FINDINGS), fc.boolean());
    fc.assert(
      fc.property(fc.subarray([...SYMPTOMS], { minLength: 1 }), known, (symptoms, evidence) => {
        const ranked = rankCauses(symptoms, evidence);
        expect(ranked.reduce((sum, { chance }) => sum + chance, 0)).toBeCloseTo(1, 9);
        expect(ranked.map(({ chance }) => chance)).toEqual(
          ranked.map(({ chance }) => chance).toSorted((a, b) => b - a),
        );
      }),
      { seed: 3, numRuns: 200 },
    );
  });

  it('is the rule of Bayes: two symptoms and one piece of evidence by hand', () => {
    const total = CAUSES.reduce((sum, cause) => sum + factsOfCause(cause).prior, 0);
    const joint = (cause: Cause) => {
      const { prior, shows, given } = factsOfCause(cause);
      const old = given.bladeOld ?? FINDING_FACTS.bladeOld.usual;
      return (prior / total) * (shows.fuzzy ?? LEAK) * (shows.notThrough ?? LEAK) * old;
    };
    // What shows neither sign is no cause of either.
    const explains = (cause: Cause) =>
      factsOfCause(cause).shows.fuzzy ?? factsOfCause(cause).shows.notThrough;
    const sum = CAUSES.filter(explains).reduce((all, cause) => all + joint(cause), 0);
    expect(chanceOf('bladeDull', ['fuzzy', 'notThrough'], { bladeOld: true })).toBeCloseTo(
      joint('bladeDull') / sum,
      12,
    );
  });

  it('keeps causes out that explain nothing of what is seen, however much speaks for them', () => {
    const worn = { bladeOld: true, driftsToMore: true };
    for (const symptom of ['marksNotRead', 'linerTears', 'whiteEdge'] as const) {
      expect(rankCauses([symptom], worn).map(({ cause }) => cause)).not.toContain('bladeDull');
    }
    expect(rankCauses(['notThrough'], worn)[0]!.cause).toBe('bladeDull');
  });

  it('blames no mat on a roll and no rollers on a mat, and offers neither', () => {
    const causes = (hold: 'mat' | 'rollers') =>
      rankCauses(['sheetMoved'], {}, {}, hold).map(({ cause }) => cause);
    expect(causes('rollers')[0]).toBe('pinchWeak');
    expect(causes('rollers')).not.toContain('matWeak');
    expect(causes('mat')[0]).toBe('matWeak');
    expect(causes('mat')).not.toContain('pinchWeak');
    const actions = rankActions(
      rankCauses(['sheetMoved'], {}, {}, 'rollers'),
      ['sheetMoved'],
      [],
      {},
      'rollers',
    );
    expect(actions[0]!.action).toBe('morePinch');
    expect(actions.some(({ action }) => /[mM]at|pressDown/.test(action))).toBe(false);
  });

  // What operators conclude first (common practice, no source).
  it.each<[Symptom, Cause]>([
    ['cornersHang', 'forceLow'],
    ['linerCut', 'forceHigh'],
    ['notThrough', 'forceLow'],
    ['bunches', 'forceHigh'],
    ['jagged', 'exposureDeep'],
    ['wontPop', 'tabsStrong'],
    ['fellOut', 'tabsWeak'],
    ['whiteEdge', 'offCentre'],
    ['marksNotRead', 'glare'],
    ['sheetMoved', 'matWeak'],
    ['oneColour', 'pigment'],
    ['linerTears', 'matStrong'],
  ])('concludes from %s first of all %s or tabs', (symptom, cause) => {
    const ranked = rankCauses([symptom], {}).slice(0, 2);
    expect(ranked.map((one) => one.cause)).toContain(cause);
  });

  it('turns to the blade when it is old and cuts drift, and away from it when it is young', () => {
    expect(first(['notThrough'], { bladeOld: true, driftsToMore: true })).toBe('bladeDull');
    expect(first(['notThrough'], { bladeYoung: true, settingPredicted: true })).toBe('forceLow');
    const [dull] = rankCauses(['notThrough'], { bladeOld: true, driftsToMore: true });
    expect(dull!.reason).toMatch(
      /blunt tip.*; the blade is near its end, cuts have needed more force lately/,
    );
  });

  it('learns which causes a workshop has', () => {
    const before = chanceOf('damp', ['bunches'], {});
    expect(chanceOf('damp', ['bunches'], {}, { damp: 12 })).toBeGreaterThan(4 * before);
  });
});

describe('since when, and what changed', () => {
  const first = (symptoms: Parameters<typeof rankCauses>[0], known: Parameters<typeof rankCauses>[1]) =>
    rankCauses(symptoms, known)[0]!.cause;

  it('tells a wearing blade from a holder that was touched and from another roll', () => {
    expect(
      first(['notThrough'], { cameAtOnce: false, holderTouched: false, otherRoll: false, bladeOld: true }),
    ).toBe('bladeDull');
    expect(first(['notThrough'], { cameAtOnce: true, holderTouched: true, otherRoll: false })).toBe(
      'exposureShallow',
    );
    expect(first(['notThrough'], { cameAtOnce: true, holderTouched: false, otherRoll: true })).toBe(
      'otherLot',
    );
    expect(first(['jagged'], { cameAtOnce: true, holderTouched: true })).toBe('exposureDeep');
    expect(first(['linerCut'], { cameAtOnce: true, holderTouched: false, otherRoll: true })).toBe('otherLot');
  });

  it('is asked where it narrows, and not where it does not', () => {
    const asked = (symptoms: Parameters<typeof nextQuestion>[0], wasAtOnce: boolean) => {
      const evidence: string[] = [];
      let known: Parameters<typeof nextQuestion>[1] = {};
      for (let question = nextQuestion(symptoms, known); question; question = nextQuestion(symptoms, known)) {
        evidence.push(question.evidence);
        known = { ...known, [question.evidence]: question.evidence === 'cameAtOnce' && wasAtOnce };
      }
      return evidence;
    };
    expect(asked(['notThrough'], true)).toEqual(expect.arrayContaining(['cameAtOnce', 'holderTouched']));
    expect(asked(['linerCut'], true)).toContain('otherRoll');
    expect(asked(['fellOut'], true)).not.toContain('otherRoll');
  });
});

describe('nextQuestion', () => {
  it('asks what parts the likeliest causes, and nothing that the log knows', () => {
    expect(nextQuestion(['whiteEdge'], {})!.evidence).toBe('isShifted');
    const asked = nextQuestion(['whiteEdge'], { isShifted: true });
    expect(asked?.evidence).not.toBe('isShifted');
    const yes = chanceOf('offCentre', ['whiteEdge'], { isShifted: true });
    expect(yes).toBeGreaterThan(chanceOf('offCentre', ['whiteEdge'], { isShifted: false }));
  });
});

describe('rankActions', () => {
  it('tries what is cheap first: cleaning before changing, a step of force before a search', () => {
    const dirty = rankActions(rankCauses(['fuzzy'], { oneSpot: true }), ['fuzzy']);
    expect(dirty[0]!.action).toBe('cleanBlade');
    const low = rankActions(rankCauses(['cornersHang'], { bladeYoung: true }), ['cornersHang']);
    expect(['moreForce', 'onePassMore']).toContain(low[0]!.action);
    const marks = rankActions(rankCauses(['marksNotRead'], { isGlossy: true }), ['marksNotRead']);
    expect(marks[0]!.action).toBe('shadeMarks');
  });

  it('never proposes what makes it worse, nor what was tried', () => {
    const ranked = rankCauses(['linerCut'], {});
    const actions = rankActions(ranked, ['linerCut'], ['lessForce']).map(({ action }) => action);
    expect(actions).not.toContain('moreForce');
    expect(actions).not.toContain('lessForce');
  });

  it('believes its own tries over the table', () => {
    const ranked = rankCauses(['cornersHang'], {});
    const mends = (record: object) =>
      rankActions(ranked, ['cornersHang'], [], record).find(({ action }) => action === 'moreForce')!.mends;
    expect(mends({ moreForce: { helped: 0, tried: 9 } })).toBeLessThan(mends({}) / 2);
    expect(mends({ moreForce: { helped: 9, tried: 9 } })).toBeGreaterThan(mends({}));
  });

  it('has an action for every cause, and a caution wherever hands go to the blade', () => {
    for (const cause of CAUSES) {
      expect(ACTIONS.some((action) => (factsOfCause(cause).mendedBy[action] ?? 0) >= 0.7)).toBe(true);
    }
    for (const action of ['cleanBlade', 'changeBlade', 'lessExposure', 'moreExposure'] as const) {
      expect(ACTION_FACTS[action].caution).toMatch(/Power off/);
    }
  });
});

describe('proposeNumber', () => {
  const values = { force: 62, exposureMm: 0.375, speed: 200, passes: 1, offsetMm: 0.25, overcutMm: 0.5 };
  const scales = {
    forceScale: { kind: 'gramForce', min: 10, max: 500, step: 1, gfAtZero: 0, gfPerUnit: 1 },
    speedScale: { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
    depthScale: { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1.5 },
  } as const;

  it('goes a usual step, but not past the middle of the window', () => {
    expect(proposeNumber('moreForce', values, scales, null)!.words).toBe('67 gf instead of 62');
    expect(proposeNumber('moreForce', values, scales, 66)!.words).toBe('66 gf instead of 62');
    // A window that lies the other way does not turn the step around.
    expect(proposeNumber('moreForce', values, scales, 50)!.to).toBe(67);
    const level = {
      ...scales,
      forceScale: { ...scales.forceScale, kind: 'level', min: 1, max: 33 } as const,
    };
    expect(proposeNumber('lessForce', { ...values, force: 9 }, level, null)!.words).toBe(
      'level 8 instead of 9',
    );
  });

  it('stays on the scales, and says nothing where there is nothing to change', () => {
    expect(proposeNumber('moreForce', { ...values, force: 500 }, scales, null)).toBeNull();
    expect(proposeNumber('slower', values, scales, null)!.to).toBe(100);
    expect(proposeNumber('lessExposure', values, scales, null)!.to).toBeCloseTo(0.3125, 9);
    expect(proposeNumber('longerTabs', values, scales, null)).toBeNull();
    expect(proposeNumber('longerTabs', { ...values, tabLengthMm: 1.2 }, scales, null)!.to).toBe(1.5);
    expect(proposeNumber('cleanBlade', values, scales, null)).toBeNull();
  });
});
