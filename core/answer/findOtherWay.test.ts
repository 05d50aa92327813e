import { describe, expect, it } from 'vitest';
import { composeAnswer, type Answer } from '#core/answer/composeAnswer.ts';
import type { TestCut } from '#core/dialIn/testCut.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { Material } from '#core/stack/material.ts';
import { NO_DETAILS } from '#core/stack/materialDetails.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Station } from '#core/station/station.ts';

/** A machine that presses no harder than 210 gf, and a card that parts at 300 gf in one pass. */
const material = {
  family: 'cardstock',
  darkness: 0,
  details: NO_DETAILS,
  conditions: [],
} as unknown as Material;
const machine = {
  id: 1,
  forceScale: { kind: 'gramForce', min: 10, max: 210, step: 5, gfAtZero: 0, gfPerUnit: 1 },
  speedScale: { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
  depthScale: { kind: 'dial', mmPerStep: 0.1, maxMm: 1 },
} as Machine;
const stack = [{ role: 'body', caliperUm: 290, isMeasured: true }] as const;
const station: Station = {
  machine,
  blade: null,
  mat: null,
  loaded: { material, condition: { id: 4, kind: 'bare', stack }, lot: '', colour: '' },
};

interface Way {
  readonly passes: number;
  readonly speed: number;
}

/** The truth: n passes cut like the square root of n times the force; the mat is scarred from a sixth above. */
function gradeAt(force: number, { passes }: Way, partsAtGf: number): DepthGrade {
  const depth = Math.log((force * Math.sqrt(passes)) / partsAtGf);
  if (depth < -0.3) return 1;
  if (depth < 0) return 2;
  return depth < 0.16 ? 7 : 8;
}

/** Follows the advice to its end, and takes the other way wherever one is offered. */
function search(partsAtGf: number): { readonly answer: Answer; readonly way: Way; readonly cuts: number } {
  let way: Way = { passes: 1, speed: 80 };
  const cuts: TestCut[] = [];
  for (;;) {
    const answer = composeAnswer(station, 'through', null, cuts, { ...way, exposureMm: 0.4 });
    if (!answer) throw new Error('the sheet has a through cut');
    const { advice, otherWay, advisedForce } = answer;
    if (otherWay) way = { passes: otherWay.passes, speed: otherWay.speed };
    else if (advice.kind === 'keep' || advice.kind === 'noWindow') return { answer, way, cuts: cuts.length };
    else cuts.push(cutAt(advisedForce, way, gradeAt(advisedForce, way, partsAtGf)));
    if (cuts.length > 20) throw new Error('the search does not end');
  }
}

function cutAt(force: number, { passes, speed }: Way, grade: DepthGrade): TestCut {
  const more = { operation: 'through', forceGf: force, bladeMetres: 0, flaws: [] };
  return { ...more, force, passes, speedMmPerS: speed, grade } as unknown as TestCut;
}

describe('where force alone does not do', () => {
  it('the same search goes on in more passes, and ends with a force that cuts right', () => {
    const { answer, way, cuts } = search(300);
    expect(way.passes).toBeGreaterThan(1);
    expect(answer.advice.kind).toBe('keep');
    expect(gradeAt(answer.bestForce, way, 300)).toBe(7);
    expect(cuts).toBeLessThanOrEqual(8);
  });

  it('a sheet that one pass cuts is not cut in two', () => {
    const { answer, way } = search(130);
    expect(way).toEqual({ passes: 1, speed: 80 });
    expect(gradeAt(answer.bestForce, way, 130)).toBe(7);
  });

  it('nothing is offered that would not help either', () => {
    const { answer } = search(2500);
    expect(answer.advice.kind).toBe('noWindow');
    expect(answer.otherWay).toBeNull();
  });
});
