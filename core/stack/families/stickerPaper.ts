import { assumeStack } from '#core/stack/families/assumeStack.ts';
import type { FamilyFacts } from '#core/stack/families/familyFacts.ts';

export const stickerPaper: FamilyFacts = {
  name: 'sticker and label paper',
  startStack: assumeStack(['face', 85], ['adhesive', 20], ['liner', 65]),
  densityKgPerM3: 900,
  habit: { usualGf: 55, throughRatio: 2.6, midFaceUm: 85, midLinerUm: 65 },
  startSpeedMmPerS: 200,
  throughPasses: 1,
  finestMm: 0.8,
  abrasion: 1.2,
  wantedTack: [20, 60],
  inkDryMin: { matt: 10, gloss: 10 },
  tensileMPa: { liner: 30, body: 25 },
  isFibrous: false,
  isSlick: false,
  isPaintedThrough: false,
  isPressedOn: false,
};
