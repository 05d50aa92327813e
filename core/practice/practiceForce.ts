import { adviseNextCut, POOR_CHANCE, type CutAdvice } from '#core/dialIn/adviseNextCut.ts';
import { minutesOf } from '#core/dialIn/estimateEffort.ts';
import { findSurprise } from '#core/dialIn/findSurprise.ts';
import { AppError } from '#core/errors/appError.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import type { ForceExercise } from '#core/practice/exercises.ts';
import { drawMachine } from '#core/practice/hiddenMachine.ts';
import {
  drawSheet,
  isHarm,
  seeCut,
  trueChance,
  windowRatio,
  withPasses,
  type TrueSheet,
} from '#core/practice/hiddenSheet.ts';
import { habit, oneAtATime, remember, staircase, type Outcome, type Task } from '#core/practice/ways.ts';
import { seededRandom, seedFromText, type Random } from '#core/random/seededRandom.ts';
import { targetGrades, type DepthGrade } from '#core/stack/depthGrade.ts';
import { findWindow } from '#core/threshold/findWindow.ts';
import { spreadForces } from '#core/threshold/spreadForces.ts';
import type { SheetBelief, Trial } from '#core/threshold/trial.ts';
import { forceToGf, gfToForce, type ForceScale } from '#core/units/forceScale.ts';

/** A force exercise with its hidden sheet. What is in `sheet` is for the judge and the teacher alone. */
export interface OpenForce {
  readonly exercise: ForceExercise;
  readonly seed: number;
  readonly sheet: TrueSheet;
  readonly scale: ForceScale;
  readonly forcesGf: readonly number[];
  readonly wanted: readonly DepthGrade[];
  readonly belief: SheetBelief;
}

/** A piece that was cut, on the scale of the machine. */
export interface CutPiece {
  readonly force: number;
  readonly passes: number;
  readonly grade: DepthGrade;
}

/** So many sheets are drawn until one is found that an exercise is for. */
const MOST_DRAWS = 4000;
/** Steps of the habit: 5 gf, or one level. Common practice, no source. */
const HABIT_GF = 5;

/**
 * Draws the hidden sheet of a seed: the same for everybody who has the seed.
 *
 * @throws AppError `badInput` where no sheet of this seed fits the exercise
 * @example openForce(forceExercise, 1).sheet.told.family // 'plainVinyl'
 */
export function openForce(exercise: ForceExercise, seed: number): OpenForce {
  const { world, operation } = exercise;
  const random = seededRandom(seedFromText(`${exercise.id} ${seed}`));
  for (let draw = 0; draw < MOST_DRAWS; draw++) {
    const machine = drawMachine(exercise.scale === 'gramForce' ? 1 : 2, random, world);
    const drawn = drawSheet(machine, world, random);
    const wanted = targetGrades(operation, drawn.grades.length === 9) ?? [];
    const sheet = withPasses(drawn, exercise.passes[0] ?? 1);
    if (wanted.length === 0 || !exercise.fits(sheet, windowRatio(sheet, wanted))) continue;
    const { scale, isScaleGuessed } = machine;
    const axis = { fromGf: forceToGf(scale.min, scale), toGf: forceToGf(scale.max, scale) };
    const belief = sheetPrior(
      {
        traits: sheet.told,
        materialId: 1,
        machineId: 1,
        isScaleGuessed,
        condition: 'bare',
        lot: '',
        colour: '',
        bladeKind: sheet.bladeKind,
      },
      null,
    );
    return { exercise, seed, sheet, scale, forcesGf: spreadForces(axis, scale), wanted, belief };
  }
  throw new AppError('badInput', `seed ${seed} has no sheet for this exercise: take another`);
}

/**
 * Cuts one piece. The same cut of the same seed comes out the same, whoever makes it.
 *
 * @param index how many pieces were cut before
 * @example cutPiece(openForce(forceExercise, 1), 0, 10, 1).grade // 0
 */
export function cutPiece(open: OpenForce, index: number, force: number, passes: number): CutPiece {
  const { sheet, scale, exercise, seed } = open;
  const random = seededRandom(seedFromText(`${exercise.id} ${seed} piece ${index}`));
  const grade = seeCut(withPasses(sheet, passes), forceToGf(force, scale), exercise.world, random);
  return { force, passes, grade };
}

/**
 * What the tool would do next, knowing what the learner knows: the sheet as it is told, and the pieces cut.
 *
 * @example adviseHere(openForce(forceExercise, 1), [], 1).kind // 'cut'
 */
export function adviseHere(open: OpenForce, pieces: readonly CutPiece[], passes: number): CutAdvice {
  const { sheet, exercise, forcesGf, belief, scale } = open;
  const conditions = { ...sheet.conditions, passes };
  const trials = pieces.map((piece): Trial => ({
    ...conditions,
    passes: piece.passes,
    forceGf: forceToGf(piece.force, scale),
    grade: piece.grade,
  }));
  const model = remember(open.seed);
  const question = { belief, conditions };
  const posterior = model.fit(question, trials);
  const { best } = findWindow(posterior, exercise.operation, forcesGf);
  const surprise = findSurprise(model, question, trials);
  return adviseNextCut(posterior, exercise.operation, forcesGf, best, trials, {
    surpriseGf: surprise?.forceGf ?? null,
  });
}

/** How a search went: what it cost, and what was found. */
export interface ForceScore {
  readonly name: string;
  readonly pieces: number;
  /** Pieces that cut the liner or scarred the mat. */
  readonly harm: number;
  readonly minutes: number;
  /** The force that was kept, on the scale of the machine; `null` for "no force is right". */
  readonly kept: number | null;
  readonly passes: number;
  /** The chance that the next cut at it is right. Of giving up: whether that was true. */
  readonly right: number;
}

/**
 * The best force there is, and how often it is right.
 *
 * @example bestForce(openForce(forceExercise, 1), 1).right > 0.9 // true
 */
export function bestForce(
  open: OpenForce,
  passes: number,
): { readonly force: number; readonly right: number } {
  const sheet = withPasses(open.sheet, passes);
  return open.forcesGf.reduce(
    (best, gf) => {
      const right = trueChance(sheet, open.wanted, gf);
      return right > best.right ? { force: gfToForce(gf, open.scale), right } : best;
    },
    { force: open.scale.min, right: 0 },
  );
}

/**
 * Scores what a learner found.
 *
 * @param kept `null` for "no force is right"
 * @example scoreForce(openForce(forceExercise, 1), [], { kept: null, passes: 1 }).right // 0
 */
export function scoreForce(
  open: OpenForce,
  pieces: readonly CutPiece[],
  { kept, passes }: { readonly kept: number | null; readonly passes: number },
): ForceScore {
  const { sheet, scale, wanted, exercise } = open;
  const mostRight = Math.max(...exercise.passes.map((count) => bestForce(open, count).right));
  const right =
    kept === null
      ? Number(mostRight < POOR_CHANCE)
      : trueChance(withPasses(sheet, passes), wanted, forceToGf(kept, scale));
  return {
    name: 'You',
    pieces: pieces.length,
    harm: pieces.filter(({ grade }) => isHarm(grade, wanted)).length,
    minutes: minutesOf(pieces.length, exercise.machine),
    kept,
    passes,
    right,
  };
}

/**
 * The same sheet by others, who know what the learner knew: the habit of small steps, the staircase, and the tool.
 *
 * @example playOthers(openForce(forceExercise, 1)).map(({ name }) => name) // ['Small steps up', 'Up and down by a quarter', 'Pale Feather']
 */
export function playOthers(open: OpenForce): readonly ForceScore[] {
  const { exercise, scale, seed } = open;
  const usual = exercise.passes[0] ?? 1;
  const step = scale.kind === 'level' ? scale.gfPerUnit : HABIT_GF;
  const random = (name: string) => seededRandom(seedFromText(`${exercise.id} ${seed} ${name}`));
  const plain = (name: string, { trials, keptGf }: Outcome) => ({
    ...scoreForce(open, piecesOf(open, trials), { kept: gfToForce(keptGf, scale), passes: usual }),
    name,
  });
  return [
    plain('Small steps up', habit(taskOf(open, usual, random('habit')), step)),
    plain('Up and down by a quarter', staircase(taskOf(open, usual, random('staircase')))),
    { ...playOurs(open, random('ours')), name: 'Pale Feather' },
  ];
}

function taskOf({ sheet, exercise, forcesGf }: OpenForce, passes: number, random: Random): Task {
  const { operation, world } = exercise;
  return { sheet: withPasses(sheet, passes), operation, world, forcesGf, random };
}

function piecesOf({ scale }: OpenForce, trials: readonly Trial[]): readonly CutPiece[] {
  return trials.map(({ forceGf, passes, grade }) => ({ force: gfToForce(forceGf, scale), passes, grade }));
}

/** The tool takes another pass where there is no window, and says so where no number of passes has one. */
function playOurs(open: OpenForce, random: Random): ForceScore {
  const { exercise, belief, seed, scale } = open;
  const pieces: CutPiece[] = [];
  for (const passes of exercise.passes) {
    const { trials, keptGf } = oneAtATime(taskOf(open, passes, random), belief, seed);
    const own = piecesOf(open, trials);
    pieces.push(...own);
    if (adviseHere(open, own, passes).kind === 'noWindow') continue;
    return scoreForce(open, pieces, { kept: gfToForce(keptGf, scale), passes });
  }
  return scoreForce(open, pieces, { kept: null, passes: exercise.passes[0] ?? 1 });
}
