import type { Cause } from '#core/faults/causes.ts';
import type { Action } from '#core/faults/faultActions.ts';
import type { Finding } from '#core/faults/findings.ts';
import type { Symptom } from '#core/faults/symptoms.ts';
import { type TrueSheet } from '#core/practice/hiddenSheet.ts';
import { NARROW_WORLD, PLAIN_WORLD, type World } from '#core/practice/worlds.ts';
import type { Family } from '#core/stack/families/families.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { MachineKind } from '#core/station/machine.ts';

interface Told {
  readonly id: string;
  readonly title: string;
  /** What lies there and what is wanted, as somebody at the bench would say it. */
  readonly story: string;
  /** The rule of the trade that it teaches; shown when it is done. */
  readonly rule: string;
  /** What a teacher may say beforehand. */
  readonly forTeacher: string;
}

/** A force to be found by cutting and looking. */
export interface ForceExercise extends Told {
  readonly kind: 'force';
  readonly operation: DepthOperation;
  readonly scale: 'gramForce' | 'level';
  readonly machine: MachineKind;
  readonly world: World;
  /** Numbers of passes that can be chosen, the usual one first. */
  readonly passes: readonly number[];
  /** Whether a sheet drawn at random is one for this exercise. @param ratio how wide its window is */
  readonly fits: (sheet: TrueSheet, ratio: number) => boolean;
}

/** A tab length to be found by pushing pieces out. */
export interface TabExercise extends Told {
  readonly kind: 'tabs';
  readonly caliperUm: number;
  readonly family: Family;
  readonly cutLengthMm: number;
  readonly machine: MachineKind;
}

/** A fault to be mended, one thing at a time. */
export interface FaultExercise extends Told {
  readonly kind: 'fault';
  readonly symptoms: readonly Symptom[];
  /** What the bench knows already. */
  readonly known: Readonly<Partial<Record<Finding, boolean>>>;
  /** What is behind it; more than one may be, and then each must be mended. */
  readonly causes: readonly Cause[];
  readonly offered: readonly Action[];
}

export type Exercise = ForceExercise | TabExercise | FaultExercise;

/** Eyes are the learner's own: nothing is misread for them. */
const SEEN: World = { ...PLAIN_WORLD, misjudged: 0, layerError: 0.05 };
const isOf =
  (...families: readonly Family[]) =>
  ({ told }: TrueSheet) =>
    families.includes(told.family);
const has = ({ told }: TrueSheet, role: 'laminate' | 'ink') =>
  told.stack.some((layer) => layer.role === role);

const isYoung = ({ conditions }: TrueSheet) => conditions.bladeMetres < 120;

/** Ten exercises, the easier ones first. Their rules are common practice, no source, but where one is named. */
export const EXERCISES: readonly Exercise[] = [
  {
    id: 'first-kiss',
    kind: 'force',
    title: 'First kiss',
    story:
      'Plain vinyl on its liner, a young blade, a roll-fed cutter that counts in gram-force. Find a force at which the vinyl lifts off clean and the liner stays whole.',
    rule: 'Start low and go up. A cut that is too light costs a scrap; one that is too deep costs the liner, and the sheet with it.',
    forTeacher: 'Ask where they would start before they cut. Who starts high learns it from the liner.',
    operation: 'kiss',
    scale: 'gramForce',
    machine: 'rollFed',
    world: SEEN,
    passes: [1],
    fits: (sheet, ratio) =>
      isOf('plainVinyl')(sheet) && sheet.told.darkness === 0 && isYoung(sheet) && ratio > 1.25,
  },
  {
    id: 'back-of-the-liner',
    kind: 'force',
    title: 'The back of the liner',
    story:
      'Label paper. It lifts off at many forces, but look at the liner from behind: scored lightly is still right, scored deeply is not.',
    rule: 'The face tells when a kiss cut is deep enough, the back of the liner tells when it is too deep. Look at both.',
    forTeacher:
      'Stop at the first clean cut, then ask how far up it stays right: the middle of the window forgives most.',
    operation: 'kiss',
    scale: 'gramForce',
    machine: 'rollFed',
    world: SEEN,
    passes: [1],
    fits: (sheet, ratio) => isOf('stickerPaper')(sheet) && ratio < 1.3 && ratio > 1.12,
  },
  {
    id: 'levels',
    kind: 'force',
    title: 'Levels are not grams',
    story:
      'A desk cutter that counts in levels nobody has weighed. Somebody wrote down how many grams a level is; believe it or not. Printable vinyl lies on the mat, to be kiss cut.',
    rule: 'A level is a place on a dial, not a weight. A setting from another machine is a start for a test cut, never a setting.',
    forTeacher: 'Give the grams of exercise 1 and let them convert. Then let them cut.',
    operation: 'kiss',
    scale: 'level',
    machine: 'matFed',
    world: { ...SEEN, levelsOff: 3, bendSd: 0.1 },
    passes: [1],
    fits: (sheet, ratio) =>
      isOf('printableVinyl', 'plainVinyl')(sheet) && !has(sheet, 'laminate') && ratio > 1.3,
  },
  {
    id: 'laminated-and-dark',
    kind: 'force',
    title: 'Printed, laminated, dark',
    story:
      'The sheet you know, but dark, printed and laminated. What was right for it bare is too light now. Find the new kiss.',
    rule: 'Ink, laminate and dark pigment each want more force. A printed or laminated sheet is another sheet: it has a setting of its own.',
    forTeacher: 'Ask which of the three adds most. Nobody can tell from one cut, and nobody needs to.',
    operation: 'kiss',
    scale: 'gramForce',
    machine: 'rollFed',
    world: SEEN,
    passes: [1],
    fits: (sheet, ratio) => has(sheet, 'laminate') && sheet.told.darkness > 0 && ratio > 1.15,
  },
  {
    id: 'through-not-the-mat',
    kind: 'force',
    title: 'Through, and not the mat',
    story:
      'Card on a mat, one pass. It must fall free all around, and the mat must stay whole: a scarred mat holds badly ever after.',
    rule: 'Through means the sheet, not the mat. The lightest force that frees every corner is the right one.',
    forTeacher: 'Corners hang longest. A cut that is right along the straight lines is not right yet.',
    operation: 'through',
    scale: 'gramForce',
    machine: 'matFed',
    world: SEEN,
    passes: [1],
    fits: (sheet, ratio) => isOf('cardstock')(sheet) && ratio > 1.2,
  },
  {
    id: 'light-passes',
    kind: 'force',
    title: 'Several light passes',
    story:
      'Thick carton on a mat. In one pass there is hardly a force that cuts it and spares the mat. You may take up to four passes.',
    rule: 'Several light passes leave a wider window than one heavy one, and press the sheet and the mat less.',
    forTeacher:
      'Let them try one pass first. The minutes count too: three passes are enough more often than four.',
    operation: 'through',
    scale: 'gramForce',
    machine: 'flatbed',
    world: { ...NARROW_WORLD, misjudged: 0, layerError: 0.05, matRoom: [1.05, 1.1] },
    passes: [1, 2, 3, 4],
    fits: (sheet) => isOf('foldingCarton')(sheet),
  },
  {
    id: 'no-force-is-right',
    kind: 'force',
    title: 'When no force is right',
    story:
      'Stencil sheet on a mat, one pass, and a blade that has cut hundreds of metres. Find the force, or say that there is none.',
    rule: 'Sometimes no force is right. When the cut hangs at one step and scars the mat at the next, stop hunting: a fresh blade or another pass opens the window.',
    forTeacher: 'The courage to stop is the lesson. Count what the last five cuts taught.',
    operation: 'through',
    scale: 'gramForce',
    machine: 'matFed',
    world: { ...NARROW_WORLD, misjudged: 0, layerError: 0.05, matRoom: [1.01, 1.03] },
    passes: [1],
    fits: (sheet) => isOf('stencilSheet')(sheet) && sheet.conditions.bladeMetres > 300,
  },
  {
    id: 'tabs',
    kind: 'tabs',
    title: 'Tabs that hold and let go',
    story:
      'Card pieces on tabs, cut every 12 mm. They must stay in while the head jerks, and come out under a thumb. Find the length of a tab.',
    rule: 'A tab is right when it bears what the run pulls and gives what a thumb pushes. Change its length in small steps: what it bears grows with it.',
    forTeacher:
      'A piece that fell out during the run may jam the next cut. It costs more than one that tears.',
    caliperUm: 380,
    family: 'cardstock',
    cutLengthMm: 12,
    machine: 'matFed',
  },
  {
    id: 'since-this-morning',
    kind: 'fault',
    title: 'Corners hang since this morning',
    story:
      'A proven setting, the same roll as yesterday, a blade of middle age. Since this morning corners hang, all at once, everywhere on the sheet. Mend it.',
    rule: 'Look before you turn a dial. What came at once is seldom the force: look at the blade and clean it first, and leave a proven setting alone.',
    forTeacher: 'More force seems to help and hides the cause. The next clean blade then cuts the liner.',
    symptoms: ['cornersHang', 'fuzzy'],
    known: { settingProven: true, cameAtOnce: true, bladeOld: false, newLot: false },
    causes: ['bladeDirty'],
    offered: ['moreForce', 'onePassMore', 'slower', 'cleanBlade', 'changeBlade', 'freshMat', 'moreExposure'],
  },
  {
    id: 'dull-on-a-damp-day',
    kind: 'fault',
    title: 'A dull blade on a damp day',
    story:
      'Card on a rainy day, and a blade near its end. The cut is fuzzy, it bunches at corners and does not come through. There may be more than one thing wrong.',
    rule: 'One change at a time, and look again after each. Two faults at once look like one that nothing mends.',
    forTeacher: 'Who changes two things at once may mend it and never knows what it was.',
    symptoms: ['fuzzy', 'bunches', 'notThrough'],
    known: { isCard: true, damp: true, bladeOld: true, driftsToMore: true },
    causes: ['bladeDull', 'damp'],
    offered: ['moreForce', 'onePassMore', 'slower', 'cleanBlade', 'changeBlade', 'dryCard', 'freshMat'],
  },
];

/**
 * The exercise of an id; `undefined` where there is none.
 *
 * @example findExercise('tabs')?.kind // 'tabs'
 */
export function findExercise(id: string): Exercise | undefined {
  return EXERCISES.find((one) => one.id === id);
}
