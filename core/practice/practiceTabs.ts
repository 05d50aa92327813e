import { fitSimple } from '#core/dialIn/simpleOrdinal.ts';
import { minutesOf } from '#core/dialIn/estimateEffort.ts';
import { bearsOf, grammageOf, type TabSheet } from '#core/perforation/holding.ts';
import { bestTab, countTabs, listTabs, TAB_QUANTITY, tabIndex, TABS_MM } from '#core/perforation/tabModel.ts';
import type { TabExercise } from '#core/practice/exercises.ts';
import { drawNormal, seededRandom, seedFromText } from '#core/random/seededRandom.ts';
import { normalCdf } from '#core/threshold/numerics/normal.ts';

/** What a pushed piece did, lightest first. */
export const TAB_OUTCOMES = TAB_QUANTITY.steps;
const RIGHT = 2;

/** A tab exercise with what its sheet hides. */
export interface OpenTabs {
  readonly exercise: TabExercise;
  readonly seed: number;
  /** What is believed of the sheet from its caliper. */
  readonly sheet: TabSheet;
  /** What is hidden: the ln of how much more its tabs bear than believed. */
  readonly stronger: number;
}

/** A piece that was cut and pushed out. */
export interface PushedPiece {
  readonly tabLengthMm: number;
  /** An index into {@link TAB_OUTCOMES}. */
  readonly seen: number;
}

/** Sheets to practise on differ more from what their caliper says than usual ones: else there is little to find. */
const ODD = 2;
/** How often right the best tab length is at least. */
const FINDABLE = 0.75;
/** The piece is a square of five centimetres. */
const PIECE = { perimeterMm: 200, areaMm2: 2500 };
/** The cut force and the jerk of a usual desk cutter. Common practice, no source. */
const CUT_GF = 220;
const JERK_MM_S2 = 2000;

/**
 * Draws how strong the hidden sheet of a seed is: within about half of what its caliper says.
 *
 * @example openTabs(tabExercise, 1).stronger === openTabs(tabExercise, 1).stronger // true
 */
export function openTabs(exercise: TabExercise, seed: number): OpenTabs {
  const stack = [{ role: 'body', caliperUm: exercise.caliperUm, isMeasured: true }] as const;
  const random = seededRandom(seedFromText(`${exercise.id} ${seed}`));
  const sheet = {
    bearsNPerMm: bearsOf(stack, exercise.family),
    grammageGPerM2: grammageOf(stack),
    cutForceGf: CUT_GF,
    accelerationMmPerS2: JERK_MM_S2,
  };
  const draw = () => ({ exercise, seed, sheet, stronger: ODD * TAB_QUANTITY.prior.sd * drawNormal(random) });
  let open = draw();
  // A sheet that no tab holds and lets go teaches nothing here.
  while (bestTabLength(open).right < FINDABLE) open = draw();
  return open;
}

/**
 * Cuts a piece on tabs of a length and pushes it out.
 *
 * @param index how many pieces were pushed before
 * @example pushPiece(openTabs(tabExercise, 1), 0, 0.3).tabLengthMm // 0.3
 */
export function pushPiece(open: OpenTabs, index: number, tabLengthMm: number): PushedPiece {
  const random = seededRandom(seedFromText(`${open.exercise.id} ${open.seed} piece ${index}`));
  const { index: middle, boundaries } = asked(open, tabLengthMm);
  const acting = middle + open.stronger + TAB_QUANTITY.noise * drawNormal(random);
  return { tabLengthMm, seen: boundaries.filter((edge) => acting >= edge).length };
}

function asked({ exercise: { cutLengthMm }, sheet }: OpenTabs, tabLengthMm: number) {
  const tabs = countTabs(PIECE.perimeterMm, tabLengthMm, cutLengthMm);
  return tabIndex({ tabs, tabLengthMm, areaMm2: PIECE.areaMm2 }, sheet);
}

/** The chance that a piece on tabs of a length stays in and comes out by hand. */
function chanceOf(open: OpenTabs, tabLengthMm: number): number {
  const { index, boundaries } = asked(open, tabLengthMm);
  const below = (edge: number) => normalCdf((edge - index - open.stronger) / TAB_QUANTITY.noise);
  return below(boundaries[RIGHT] as number) - below(boundaries[RIGHT - 1] as number);
}

/** The tab lengths that can be chosen, mm. */
function lengthsOf({ exercise: { cutLengthMm } }: OpenTabs): readonly number[] {
  return TABS_MM.filter((tabLengthMm) => tabLengthMm <= cutLengthMm);
}

function listChoices(open: OpenTabs, pieces: readonly PushedPiece[]) {
  const { exercise, sheet } = open;
  const judged = pieces.map(({ tabLengthMm, seen }) => ({ ...asked(open, tabLengthMm), seen }));
  const posterior = fitSimple(TAB_QUANTITY, judged);
  return listTabs({ ...PIECE, cutLengthMm: exercise.cutLengthMm }, sheet, posterior);
}

/** What the tool would try next, and how sure it is of it. */
export interface TabAdvice {
  readonly tabLengthMm: number;
  readonly right: number;
}

/**
 * What the tool advises after the pieces that were pushed.
 *
 * @example adviseTabs(openTabs(tabExercise, 1), []).tabLengthMm > 0 // true
 */
export function adviseTabs(open: OpenTabs, pieces: readonly PushedPiece[]): TabAdvice {
  const best = bestTab(listChoices(open, pieces));
  return { tabLengthMm: best?.tabLengthMm ?? 1, right: best?.chances[RIGHT] ?? 0 };
}

/** How a search for tabs went. */
export interface TabScore {
  readonly name: string;
  readonly pieces: number;
  /** Pieces that fell out during the run, or tore. */
  readonly harm: number;
  readonly minutes: number;
  readonly kept: number;
  readonly right: number;
}

/**
 * Scores what a learner found.
 *
 * @example scoreTabs(openTabs(tabExercise, 1), [], 1).pieces // 0
 */
export function scoreTabs(open: OpenTabs, pieces: readonly PushedPiece[], kept: number): TabScore {
  return {
    name: 'You',
    pieces: pieces.length,
    harm: pieces.filter(({ seen }) => seen === 0 || seen === TAB_OUTCOMES.length - 1).length,
    minutes: minutesOf(pieces.length, open.exercise.machine),
    kept,
    right: chanceOf(open, kept),
  };
}

/**
 * The best tab length of the hidden sheet, for the judge and the teacher.
 *
 * @example bestTabLength(openTabs(tabExercise, 1)).right > 0.5 // true
 */
export function bestTabLength(open: OpenTabs): TabAdvice {
  return lengthsOf(open)
    .map((tabLengthMm) => ({ tabLengthMm, right: chanceOf(open, tabLengthMm) }))
    .reduce((best, one) => (one.right > best.right ? one : best));
}

const MOST_PIECES = 20;
/** The tool keeps what it believes right so often, after at least one piece. */
const SURE = 0.75;

/**
 * The same sheet by others: the habit of small steps from 1 mm, halving steps, and the tool.
 *
 * @example playTabs(openTabs(tabExercise, 1)).length // 3
 */
export function playTabs(open: OpenTabs): readonly TabScore[] {
  const small = walk(open, 1, (at, side) => at - side * 0.1);
  let ratio = 1.5;
  let last = 0;
  const halving = walk(open, 1, (at, side) => {
    if (last !== 0 && side !== last) ratio = Math.sqrt(ratio);
    last = side;
    return side < 0 ? at * ratio : at / ratio;
  });
  const ours: PushedPiece[] = [];
  let advice = adviseTabs(open, ours);
  while (ours.length < MOST_PIECES && (ours.length === 0 || advice.right < SURE)) {
    ours.push(pushPiece(open, ours.length, advice.tabLengthMm));
    const next = adviseTabs(open, ours);
    if (next.tabLengthMm === advice.tabLengthMm && ours.at(-1)?.seen === RIGHT) break;
    advice = next;
  }
  return [
    { ...scoreTabs(open, small, small.at(-1)?.tabLengthMm ?? 1), name: 'Small steps up' },
    { ...scoreTabs(open, halving, halving.at(-1)?.tabLengthMm ?? 1), name: 'Up and down by a half' },
    { ...scoreTabs(open, ours, adviseTabs(open, ours).tabLengthMm), name: 'Pale Feather' },
  ];
}

/** Walks until a piece is right. @param step where to go from a length; side is -1 where it was too weak */
function walk(
  open: OpenTabs,
  start: number,
  step: (at: number, side: -1 | 1) => number,
): readonly PushedPiece[] {
  const lengths = lengthsOf(open);
  const nearest = (mm: number) =>
    lengths.reduce((best, one) => (Math.abs(one - mm) < Math.abs(best - mm) ? one : best));
  const pieces: PushedPiece[] = [];
  let at = nearest(start);
  while (pieces.length < MOST_PIECES) {
    const piece = pushPiece(open, pieces.length, at);
    pieces.push(piece);
    if (piece.seen === RIGHT) break;
    at = nearest(step(at, piece.seen < RIGHT ? -1 : 1));
  }
  return pieces;
}
