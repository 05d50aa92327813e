import { assumeStack } from '#core/stack/families/assumeStack.ts';
import type { FamilyFacts } from '#core/stack/families/familyFacts.ts';

export const plainVinyl: FamilyFacts = {
  name: 'plain adhesive vinyl',
  startStack: assumeStack(['face', 70], ['adhesive', 22], ['liner', 130]),
  densityKgPerM3: 1350,
  habit: { usualGf: 60, throughRatio: 3.4, midFaceUm: 70, midLinerUm: 130 },
  startSpeedMmPerS: 200,
  throughPasses: 1,
  finestMm: 0.6,
  abrasion: 1,
  wantedTack: [25, 90],
  inkDryMin: { matt: 10, gloss: 10 },
  tensileMPa: { liner: 30, body: 50 },
  isFibrous: false,
  isSlick: false,
  isPaintedThrough: false,
  isPressedOn: false,
};
