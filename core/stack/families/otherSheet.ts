import { assumeStack } from '#core/stack/families/assumeStack.ts';
import type { FamilyFacts } from '#core/stack/families/familyFacts.ts';

export const otherSheet: FamilyFacts = {
  name: 'other sheet',
  startStack: assumeStack(['face', 90], ['adhesive', 22], ['liner', 100]),
  densityKgPerM3: 900,
  habit: { usualGf: 70, throughRatio: 3, midFaceUm: 90, midLinerUm: 100 },
  startSpeedMmPerS: 100,
  throughPasses: 1,
  finestMm: 1,
  abrasion: 1.2,
  wantedTack: [30, 90],
  inkDryMin: { matt: 10, gloss: 10 },
  tensileMPa: { liner: 30, body: 25 },
  isFibrous: false,
  isSlick: false,
  isPaintedThrough: false,
  isPressedOn: false,
};
