import { assumeStack } from '#core/stack/families/assumeStack.ts';
import type { FamilyFacts } from '#core/stack/families/familyFacts.ts';

export const transferFilm: FamilyFacts = {
  name: 'transfer film',
  startStack: assumeStack(['face', 85], ['liner', 100]),
  densityKgPerM3: 1200,
  habit: { usualGf: 58, throughRatio: 3.6, midFaceUm: 85, midLinerUm: 100 },
  startSpeedMmPerS: 150,
  throughPasses: 1,
  finestMm: 0.6,
  abrasion: 0.8,
  wantedTack: [40, 95],
  inkDryMin: { matt: 30, gloss: 30 },
  tensileMPa: { liner: 120, body: 50 },
  isFibrous: false,
  isSlick: true,
  isPaintedThrough: false,
  isPressedOn: true,
};
