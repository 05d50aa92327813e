import { drawMachine } from '#core/practice/hiddenMachine.ts';
import { drawSheet } from '#core/practice/hiddenSheet.ts';
import { PLAIN_WORLD } from '#core/practice/worlds.ts';
import {
  findExercise,
  type FaultExercise,
  type ForceExercise,
  type TabExercise,
} from '#core/practice/exercises.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { openArt } from '#core/artwork/printed/artSource.ts';
import { INITIAL_STYLE } from '#core/drawing/svg/svgStyle.ts';
import { coverByAlpha } from '#core/artwork/trace/coverPicture.ts';
import type { Pixels } from '#core/artwork/trace/pixels.ts';
import { RingLine } from '#core/artwork/trace/ringLine.ts';
import { composeAnswer } from '#core/answer/composeAnswer.ts';
import type { CheckFacts } from '#core/checks/trouble.ts';
import type { SimpleQuantity } from '#core/dialIn/simpleOrdinal.ts';
import type { TestCut } from '#core/dialIn/testCut.ts';
import { composeCard } from '#core/dialIn/testCard.ts';
import { makeTestPiece } from '#core/dialIn/testPiece.ts';
import { ContourBuilder } from '#core/drawing/contourBuilder.ts';
import { IDENTITY } from '#core/geometry/affine.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import { deriveMaterial, mapMaterial } from '#core/knowledge/materialFit.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { gcodeOptions } from '#core/protocol/gcode/gcodeOptions.ts';
import { plotterFile } from '#core/tests/sampleJob.ts';
import { PROBIT } from '#core/threshold/numerics/link.ts';
import { misjudgingMatrix } from '#core/threshold/sheetModel/misjudging.ts';
import { placeTabs } from '#core/perforation/placeTabs.ts';
import { CellGrid } from '#core/sheet/nest/cellGrid.ts';
import { followSeats } from '#core/passes/followSeats.ts';
import { itemAt } from '#core/collections/itemAt.ts';
import { listSharedEffects } from '#core/knowledge/sharedEffects.ts';
import { COMMON_PRIORS } from '#core/threshold/thresholdPriors.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { ringToContour } from '#core/geometry/ringToContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { packSheet } from '#core/book/travellingSheet.ts';
import { PLAIN_LAYOUT } from '#core/sheet/chooseSheet.ts';
import type { Stack } from '#core/stack/layer.ts';
import type { Material } from '#core/stack/material.ts';
import { NO_DETAILS } from '#core/stack/materialDetails.ts';
import { PLAIN_EQUIPMENT, type Machine } from '#core/station/machine.ts';
import type { Blade, LoadedStation, Mat } from '#core/station/station.ts';
import { sampleDesign, samplePlan, samplePlanMachine } from '#core/tests/sampleJob.ts';
import { sampleProgram } from '#core/tests/sampleProgram.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';
import type { Trial } from '#core/threshold/trial.ts';

/** Names that examples in docstrings may use beside what their own file exports. */

/** A film of 80 µm on a liner of 140, and a card of 290 µm. */
export const film: Stack = [
  { role: 'face', caliperUm: 80, isMeasured: true },
  { role: 'adhesive', caliperUm: 25, isMeasured: true },
  { role: 'liner', caliperUm: 140, isMeasured: true },
];
export const card: Stack = [{ role: 'body', caliperUm: 290, isMeasured: true }];

/** A ring of four points, 10 mm wide, with its corner at 0, 0; the same as a contour and as a polyline that ends where it began. */
export const square: readonly PointMm[] = [
  { x: 0, y: 0 },
  { x: 10, y: 0 },
  { x: 10, y: 10 },
  { x: 0, y: 10 },
];
/** A picture of one pixel: white, or black. */
export const whitePixel: Pixels = { width: 1, height: 1, data: Uint8Array.of(255, 255, 255, 255) };
export const blackPixel: Pixels = { width: 1, height: 1, data: Uint8Array.of(0, 0, 0, 255) };
export const pixelCoverage = coverByAlpha(whitePixel);
export const squareLine = new RingLine(square, 1);
export const squareContour = ringToContour(square);
export const loop: readonly PointMm[] = [...square, { x: 0, y: 0 }];
/** A triangle that stands 20 mm to the right. */
export const triangle: readonly PointMm[] = [
  { x: 20, y: 0 },
  { x: 30, y: 0 },
  { x: 20, y: 10 },
];

/** A red square of 20 mm with a blue circle in it, on 40 by 40 mm; red is cut through, blue is kissed. */
export const svgText =
  '<svg width="40mm" height="40mm" viewBox="0 0 40 40" fill="none"><rect stroke="#ff0000" x="10" y="10" width="20" height="20"/><circle stroke="#0000ff" cx="20" cy="20" r="5"/></svg>';
export const drawing = readSvg(svgText);
export const given = { roles: { '|#ff0000': 'through', '|#0000ff': 'kiss' }, lineRoles: {} } as const;

export const values: SettingValues = {
  force: 90,
  exposureMm: 0.35,
  speed: 100,
  passes: 1,
  offsetMm: 0.25,
  overcutMm: 0.5,
};
export const gramScale = {
  kind: 'gramForce',
  min: 10,
  max: 500,
  step: 5,
  gfAtZero: 0,
  gfPerUnit: 1,
} as const;
export const levelScale = { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 0, gfPerUnit: 7 } as const;
export const turns = { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1 } as const;
export const sheet = { name: 'A4', widthMm: 210, heightMm: 297, marginMm: 6 } as const;
export const layout = PLAIN_LAYOUT;
export const marks = { scheme: 'fourCorners', lengthMm: 20, thicknessMm: 0.5, insetMm: 10 } as const;

export const machine: Machine = {
  ...PLAIN_EQUIPMENT,
  ...samplePlanMachine,
  id: 1,
  name: 'Skua',
  bedWidthMm: 300,
  bedLengthMm: 600,
  marginMm: 5,
  forceScale: gramScale,
  depthScale: turns,
  numbersOwner: 'file',
  language: { id: 'hpgl', options: { unitsPerMm: 40 } },
  link: { kind: 'none' },
  version: 1,
  isArchived: false,
};
export const blade: Blade = {
  id: 1,
  number: 4,
  kind: '45° fine',
  angleDeg: 45,
  offsetMm: 0.25,
  travelMetres: 120,
  lifeMetres: 400,
  fittedTo: 1,
  reachMm: null,
  holder: '',
  isHardMetal: true,
  cleanedAt: null,
  retiredAt: null,
};
export const mat: Mat = {
  id: 1,
  number: 2,
  tack: 'standard',
  uses: 10,
  widthMm: 300,
  heightMm: 300,
  usesAtRestick: 0,
  usesAtCleaning: 0,
  firstUsedAt: null,
  hasGrooves: false,
  isForFineWork: false,
  retiredAt: null,
};
export const material: Material = {
  id: 1,
  name: 'Herringglass',
  maker: 'Oldstrand',
  family: 'printableVinyl',
  finish: 'gloss',
  colourName: 'slate',
  colourHex: '#444444',
  darkness: 0.5,
  cautions: [],
  details: { ...NO_DETAILS, colours: [{ name: 'slate', hex: '#444444', darkness: 0.9, forcePercent: 10 }] },
  conditions: [{ id: 4, kind: 'bare', stack: film }],
  version: 1,
  isArchived: false,
};
/** The film with its kiss, as another workshop reads it. */
export const farSheet = packSheet(
  material,
  [
    {
      key: { conditionId: 4, machineId: 1, bladeKind: '45° fine', operation: 'kiss' },
      revision: {
        values: { force: 80, exposureMm: 0.2, speed: 200, passes: 1, offsetMm: 0.25, overcutMm: 0.2 },
        reason: 'weeds well',
      },
      state: 'proven',
    },
  ],
  [machine],
);
export const station: LoadedStation = {
  machine,
  blade,
  mat,
  loaded: { material, condition: { id: 4, kind: 'bare', stack: film }, lot: 'L1', colour: '' },
};

/** The film on the machine, cut three times: at 60 gf it hung, at 72 it was clean, at 95 the liner was gouged. */
export const place = {
  traits: { family: 'printableVinyl', stack: film, darkness: 0 },
  materialId: 1,
  machineId: 1,
  condition: 'bare',
  lot: '',
  colour: '',
} as const;
export const conditions = { passes: 1, speedMmPerS: 100, bladeMetres: 0 };
export const trials: readonly Trial[] = [
  { ...conditions, forceGf: 60, grade: 2 },
  { ...conditions, forceGf: 72, grade: 3 },
  { ...conditions, forceGf: 95, grade: 5 },
];
export const model = sheetModel(11);
export const question = { belief: sheetPrior(place, null), conditions };
export const posterior = model.fit(question, trials);
export const forces: readonly number[] = Array.from({ length: 41 }, (_, index) => 40 + 5 * index);

export const plan = samplePlan(drawing.contours, given.roles, {
  kiss: values,
  through: { ...values, force: 180 },
});
/** Of one part with five kissed strokes. */
export const program = sampleProgram(5);
export const answer = composeAnswer(station, 'kiss', null, []);
export const listed = listSharedEffects([1], COMMON_PRIORS);
export const seatChoice = itemAt(followSeats(machine.toolSeats, ['kiss'], true), 0);

/** A kiss at 100 gf that came out clean. */
export const testCut: TestCut = {
  id: 1,
  conditionId: 4,
  machineId: 1,
  operation: 'kiss',
  force: 100,
  forceGf: 100,
  speedMmPerS: 100,
  passes: 1,
  exposureMm: 0.35,
  bladeMetres: 0,
  grade: 3,
  flaws: [],
  author: 'Ines',
  lot: '',
  colour: '',
  at: '2027-01-01T00:00:00.000Z',
};
export const facts: CheckFacts = {
  family: 'printableVinyl',
  isLayered: true,
  machineKind: 'matFed',
  operations: machine.operations,
  offsetMm: 0.25,
  spacingMm: 2,
};
export const piece = makeTestPiece('circle');
export const job = sampleDesign(
  '<svg width="40mm" height="40mm" viewBox="0 0 40 40" fill="none"><rect stroke="#ff0000" x="10" y="10" width="20" height="20"/></svg>',
  { '|#ff0000': 'through' },
  { xMm: 20, yMm: 20 },
);
/** A perforated piece, and a sheet that its tabs are part of. */
export const tabPiece = { tabs: 16, tabLengthMm: 1, areaMm2: 2500 };
export const tabSheet = { bearsNPerMm: 3.9, grammageGPerM2: 250, cutForceGf: 180, accelerationMmPerS2: 2000 };
/** Something judged in five steps, wanted in the middle. */
export const quantity: SimpleQuantity = {
  name: 'hold',
  steps: ['fell out', 'loose', 'right', 'firm', 'tore'],
  boundaries: [-2, -1, 1, 2],
  prior: { mean: 0, sd: 1, reason: 'a sample' },
  noise: 0.3,
};

export {
  IDENTITY,
  INITIAL_STYLE,
  openArt,
  gcodeOptions,
  PLAIN_CHOICES,
  PROBIT,
  layOutJob,
  misjudgingMatrix,
  placeTabs,
};
/** A pen that draws in mm, and a grid of ten by ten cells: both begin empty each time. */
export const newPen = () => new ContourBuilder(IDENTITY);
export const newGrid = () => new CellGrid(10, 10);
/** What the trials above say of the film, at the start of a fit. */
export const evidence = mapMaterial([{ ...place, trials }], listed, COMMON_PRIORS);
export const local = new Float64Array(evidence.touched.length + evidence.ownNames.length);
export const derivatives = deriveMaterial(evidence, local);
export const laid = layOutJob(job, machine);
export const file = plotterFile();
export const testCard = composeCard(piece, [{ force: 90, speed: 100, passes: 1 }], { x: 10, y: 10 });
export const course = {
  state: 'queued',
  message: '',
  parts: [{ from: 0, to: 5, before: null }],
  partIndex: 0,
  sending: null,
  named: 0,
  reached: [],
} as const;

export const hiddenMachine = drawMachine(1, seededRandom(1));
export const hiddenSheet = drawSheet(hiddenMachine, PLAIN_WORLD, seededRandom(2));
export const hiddenTask = {
  sheet: hiddenSheet,
  operation: 'through' as const,
  world: PLAIN_WORLD,
  forcesGf: [20, 40, 80, 160, 320],
  random: seededRandom(3),
};
export const forceExercise = findExercise('first-kiss') as ForceExercise;
export const tabExercise = findExercise('tabs') as TabExercise;
export const faultExercise = findExercise('since-this-morning') as FaultExercise;
export const hiddenBelief = sheetPrior(place, null);
export { PLAIN_WORLD };
