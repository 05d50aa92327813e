import type { ScaleReading } from '#core/units/fitForceScale.ts';
import { fittedAsItCame } from '#core/station/standInVariants.ts';
import type { NewMachine } from '#store/repositories/book/machines.ts';
import type { NewBlade, NewMat } from '#store/repositories/bench/tools.ts';

/** The invented workshop: two people in a harbour town, two machines, what lies on their shelf. */
export const PEOPLE = ['Ines', 'Tove'] as const;

export const ROLL_CUTTER: NewMachine = {
  name: 'Gannet 600',
  kind: 'rollFed',
  bedWidthMm: 610,
  bedLengthMm: 2000,
  marginMm: 10,
  forceScale: { kind: 'gramForce', min: 10, max: 500, step: 1, gfAtZero: 0, gfPerUnit: 1 },
  speedScale: { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
  ...fittedAsItCame('roll'),
  depthScale: { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1.5 },
  accelerationMmPerS2: 3000,
  travelSpeedMmPerS: 500,
  language: { id: 'hpgl', options: { unitsPerMm: 40 } },
  link: { kind: 'standIn', model: 'roll' },
  operations: ['kiss', 'through', 'perforated', 'score'],
  perforation: 'native',
  marks: { scheme: 'fourCorners', shape: 'disc', lengthMm: 6, thicknessMm: 1, insetMm: 12 },
  printAndCut: [
    { sheet: 'A4', widthMm: 178, heightMm: 255 },
    { sheet: 'A3', widthMm: 265, heightMm: 378 },
  ],
  pinchPositions: ['thin film', 'usual', 'card'],
  hasSuction: true,
};

export const DESK_CUTTER: NewMachine = {
  name: 'Dunlin desk',
  kind: 'matFed',
  bedWidthMm: 305,
  bedLengthMm: 610,
  marginMm: 6,
  forceScale: { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 4, gfPerUnit: 12 },
  speedScale: { unit: 'cm/s', min: 1, max: 40, step: 1, mmPerSPerUnit: 10 },
  ...fittedAsItCame('desk'),
  depthScale: { kind: 'dial', mmPerStep: 0.1, maxMm: 1 },
  accelerationMmPerS2: 1200,
  travelSpeedMmPerS: 250,
  language: { id: 'hpgl', options: { unitsPerMm: 40 } },
  link: { kind: 'standIn', model: 'desk' },
  operations: ['kiss', 'through', 'perforated', 'score', 'crease'],
  perforation: 'drawn',
  marks: { scheme: 'threeCorners', shape: 'disc', lengthMm: 5, thicknessMm: 1, insetMm: 15 },
  printAndCut: [{ sheet: 'A4', widthMm: 168, heightMm: 246 }],
  pinchPositions: [],
  hasSuction: false,
};

/** A flatbed with a drag knife, put together from a kit: it speaks G-code and answers every line. */
export const FLATBED: NewMachine = {
  name: 'Plover flatbed',
  kind: 'flatbed',
  bedWidthMm: 420,
  bedLengthMm: 600,
  marginMm: 5,
  forceScale: { kind: 'gramForce', min: 20, max: 800, step: 5, gfAtZero: 0, gfPerUnit: 1 },
  speedScale: { unit: 'mm/s', min: 5, max: 250, step: 5, mmPerSPerUnit: 1 },
  ...fittedAsItCame('flat'),
  accelerationMmPerS2: 800,
  travelSpeedMmPerS: 200,
  numbersOwner: 'file',
  language: { id: 'gcode', options: { settleSeconds: 0.05 } },
  link: { kind: 'standIn', model: 'flat' },
  operations: ['kiss', 'through', 'perforated', 'score'],
  toolSeats: [{ name: 'knife', holds: 'blade', tool: '45° fine' }],
  perforation: 'drawn',
  marks: { scheme: 'none', lengthMm: 20, thicknessMm: 1, insetMm: 10 },
  printAndCut: [],
  pinchPositions: [],
  hasSuction: true,
};

/** What the workshop's kitchen balance showed under the desk cutter's tip. */
export const DESK_READINGS: readonly ScaleReading[] = [
  { force: 2, grams: 33 },
  { force: 2, grams: 35 },
  { force: 8, grams: 108 },
  { force: 8, grams: 104 },
  { force: 16, grams: 208 },
  { force: 16, grams: 213 },
  { force: 24, grams: 297 },
  { force: 32, grams: 371 },
  { force: 32, grams: 364 },
];

export const BLADES: readonly NewBlade[] = [
  {
    number: 7,
    kind: '45° fine',
    angleDeg: 45,
    offsetMm: 0.25,
    travelMetres: 205,
    lifeMetres: 360,
    reachMm: 0.9,
    holder: 'roll',
  },
  {
    number: 5,
    kind: '45° fine',
    angleDeg: 45,
    offsetMm: 0.25,
    travelMetres: 348,
    lifeMetres: 360,
    reachMm: 0.8,
    holder: 'desk',
  },
  {
    number: 8,
    kind: '60° deep',
    angleDeg: 60,
    offsetMm: 0.5,
    travelMetres: 62,
    lifeMetres: 250,
    reachMm: 1.4,
    isHardMetal: true,
  },
  { number: 9, kind: '45° fine', angleDeg: 45, offsetMm: 0.25, travelMetres: 0, lifeMetres: 360 },
  {
    number: 6,
    kind: '45° fine',
    angleDeg: 45,
    offsetMm: 0.25,
    travelMetres: 41,
    lifeMetres: 360,
    reachMm: 1.2,
    holder: 'flatbed',
  },
];

export const MATS: readonly NewMat[] = [
  { number: 3, tack: 'standard', uses: 31, widthMm: 305, heightMm: 305 },
  { number: 4, tack: 'light', uses: 8, widthMm: 305, heightMm: 610, isForFineWork: true },
  { number: 6, tack: 'strong', uses: 12, widthMm: 305, heightMm: 305 },
];
