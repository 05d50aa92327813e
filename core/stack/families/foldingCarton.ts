import { assumeStack } from '#core/stack/families/assumeStack.ts';
import type { FamilyFacts } from '#core/stack/families/familyFacts.ts';

export const foldingCarton: FamilyFacts = {
  name: 'folding carton',
  startStack: assumeStack(['body', 420]),
  densityKgPerM3: 720,
  habit: { usualGf: 330, throughRatio: 1, midFaceUm: 420, midLinerUm: 0 },
  startSpeedMmPerS: 50,
  throughPasses: 1,
  finestMm: 1.5,
  abrasion: 2.4,
  wantedTack: [55, 100],
  inkDryMin: { matt: 10, gloss: 10 },
  tensileMPa: { liner: 30, body: 25 },
  isFibrous: true,
  isSlick: false,
  isPaintedThrough: false,
  isPressedOn: false,
};
