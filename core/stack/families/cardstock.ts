import { assumeStack } from '#core/stack/families/assumeStack.ts';
import type { FamilyFacts } from '#core/stack/families/familyFacts.ts';

export const cardstock: FamilyFacts = {
  name: 'cardstock',
  startStack: assumeStack(['body', 280]),
  densityKgPerM3: 760,
  habit: { usualGf: 200, throughRatio: 1, midFaceUm: 280, midLinerUm: 0 },
  startSpeedMmPerS: 80,
  throughPasses: 2,
  finestMm: 1.2,
  abrasion: 2,
  wantedTack: [45, 95],
  inkDryMin: { matt: 10, gloss: 10 },
  tensileMPa: { liner: 30, body: 25 },
  isFibrous: true,
  isSlick: false,
  isPaintedThrough: false,
  isPressedOn: false,
};
