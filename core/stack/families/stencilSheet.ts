import { assumeStack } from '#core/stack/families/assumeStack.ts';
import type { FamilyFacts } from '#core/stack/families/familyFacts.ts';

export const stencilSheet: FamilyFacts = {
  name: 'stencil sheet',
  startStack: assumeStack(['body', 190]),
  densityKgPerM3: 1380,
  habit: { usualGf: 210, throughRatio: 1, midFaceUm: 190, midLinerUm: 0 },
  startSpeedMmPerS: 50,
  throughPasses: 1,
  finestMm: 1.2,
  abrasion: 1.3,
  wantedTack: [30, 95],
  inkDryMin: { matt: 10, gloss: 10 },
  tensileMPa: { liner: 30, body: 50 },
  isFibrous: false,
  isSlick: false,
  isPaintedThrough: true,
  isPressedOn: false,
};
