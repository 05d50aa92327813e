import { assumeStack } from '#core/stack/families/assumeStack.ts';
import type { FamilyFacts } from '#core/stack/families/familyFacts.ts';

export const printableVinyl: FamilyFacts = {
  name: 'printable vinyl',
  startStack: assumeStack(['face', 85], ['adhesive', 25], ['liner', 130]),
  densityKgPerM3: 1350,
  habit: { usualGf: 70, throughRatio: 3.2, midFaceUm: 85, midLinerUm: 130 },
  startSpeedMmPerS: 200,
  throughPasses: 1,
  finestMm: 0.6,
  abrasion: 1,
  wantedTack: [25, 90],
  inkDryMin: { matt: 30, gloss: 45 },
  tensileMPa: { liner: 30, body: 50 },
  isFibrous: false,
  isSlick: false,
  isPaintedThrough: false,
  isPressedOn: false,
};
