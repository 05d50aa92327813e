import type { Boundaries, SimplePiece, SimplePosterior, SimpleQuantity } from '#core/dialIn/simpleOrdinal.ts';
import { fitSimple, meanOf, predictSimple } from '#core/dialIn/simpleOrdinal.ts';
import {
  bearsOf,
  carryingTabs,
  estimateHolding,
  grammageOf,
  pullOn,
  THUMB_MOST_N,
  tornTabs,
  type Holding,
  type TabPiece,
  type TabSheet,
} from '#core/perforation/holding.ts';
import type { Machine } from '#core/station/machine.ts';
import type { LoadedSheet } from '#core/station/station.ts';
import { gfOf } from '#core/units/forceScale.ts';

/**
 * Whether a perforated piece stays in during the run and comes out by hand, as one question. Tabs must bear what pulls
 * and must tear under a thumb; what is unknown of a sheet is how much a mm of its tabs bears. Judged pieces teach that
 * one figure, and forces, reports and risks all follow from it.
 */
export const TAB_QUANTITY: SimpleQuantity = {
  name: 'tabs',
  steps: ['fell out', 'loose', 'right', 'hard to pop', 'tore'],
  // Every piece brings its own.
  boundaries: [0, 0, 0, 0],
  prior: { mean: 0, sd: 0.45, reason: 'tabs bear what caliper and strength say within about half' },
  noise: 0.25,
};

/** The piece that is judged where nobody said how large it was, mm: a square of five centimetres. */
const USUAL_SIDE_MM = 50;

/** Tabs that bear so many times what pulls hold at all, and hold well. Common practice, no source. */
const HOLDS = { atAll: 1.1, well: 2.2 };
/** Above this a push is no longer light, N. Common practice, no source. */
const LIGHT_PUSH_N = 16;
/** Tab lengths to choose from, mm: what a blade can still place. */
export const TABS_MM = Array.from({ length: 28 }, (_, index) => Number((0.3 + index * 0.1).toFixed(1)));

/**
 * A piece on the latent index, ln N of one tab as believed, with the boundaries that its pull and a thumb set. Where a
 * piece would have to hold more than a thumb can tear, nothing is right.
 *
 * @example tabIndex(tabPiece, tabSheet).boundaries[1] < tabIndex(tabPiece, tabSheet).boundaries[2] // true
 */
export function tabIndex(
  piece: TabPiece,
  sheet: TabSheet,
): SimplePiece & { readonly boundaries: Boundaries } {
  const { dragN, jerkN } = pullOn(piece.areaMm2, sheet);
  const pullN = (dragN + jerkN) / carryingTabs(piece.tabs);
  const torn = tornTabs(piece.tabs);
  const [out, loose] = [Math.log(HOLDS.atAll * pullN), Math.log(HOLDS.well * pullN)];
  const [hard, tears] = [Math.log(LIGHT_PUSH_N / torn), Math.log(THUMB_MOST_N / torn)];
  const middle = (loose + hard) / 2;
  return {
    index: Math.log(piece.tabLengthMm * sheet.bearsNPerMm),
    boundaries: [
      Math.min(out, middle),
      Math.min(loose, middle),
      Math.max(hard, middle),
      Math.max(tears, middle),
    ],
  };
}

/** A piece that was pushed out, or fell. */
export interface JudgedTabs {
  readonly given: GivenTabs;
  /** 0 fell out, 2 right, 4 tore. */
  readonly seen: number;
}

/**
 * What judged pieces have taught of a sheet's tabs.
 *
 * @example fitTabs([{ given: { tabLengthMm: 1, cutLengthMm: 12 }, seen: 2 }], tabSheet).grid.length // 241
 */
export function fitTabs(judged: readonly JudgedTabs[], sheet: TabSheet): SimplePosterior {
  return fitSimple(
    TAB_QUANTITY,
    judged.map(({ given, seen }) => ({ ...tabIndex(pieceOf(given), sheet), seen })),
  );
}

/**
 * The tabs of a ring: a whole number of equal periods, two at least.
 *
 * @example countTabs(200, 1, 9) // 20
 */
export function countTabs(perimeterMm: number, tabLengthMm: number, cutLengthMm: number): number {
  return Math.max(2, Math.round(perimeterMm / (tabLengthMm + cutLengthMm)));
}

/**
 * What tabs feel of a sheet on a machine that cuts with a force between them.
 *
 * @param force on the machine's scale
 * @example tabSheetOf(machine, station.loaded, 200).cutForceGf // 200
 */
export function tabSheetOf(
  machine: Pick<Machine, 'forceScale' | 'accelerationMmPerS2'>,
  { material, condition: { stack } }: Pick<LoadedSheet, 'material' | 'condition'>,
  force: number,
): TabSheet {
  return {
    bearsNPerMm: bearsOf(stack, material.family),
    grammageGPerM2: grammageOf(stack),
    cutForceGf: gfOf(force, machine.forceScale),
    accelerationMmPerS2: machine.accelerationMmPerS2,
  };
}

/** What is known of a piece that was judged, or is to be cut. */
export interface GivenTabs {
  readonly tabLengthMm: number;
  readonly cutLengthMm: number;
  /** How many tabs it had, and its area; of a usual piece where nobody says. */
  readonly tabs?: number | undefined;
  readonly areaMm2?: number | undefined;
}

/**
 * A piece as the model takes it, with what nobody said filled in.
 *
 * @example pieceOf({ tabLengthMm: 1, cutLengthMm: 9 }).tabs // 20
 */
export function pieceOf({ tabLengthMm, cutLengthMm, tabs, areaMm2 }: GivenTabs): TabPiece {
  return {
    tabLengthMm,
    tabs: tabs ?? countTabs(4 * USUAL_SIDE_MM, tabLengthMm, cutLengthMm),
    areaMm2: areaMm2 ?? USUAL_SIDE_MM ** 2,
  };
}

/**
 * The forces on a piece by what judged pieces have taught of the sheet.
 *
 * @example holdingNow(tabPiece, tabSheet, fitTabs([], tabSheet)).holdIndex > 1 // true
 */
export function holdingNow(piece: TabPiece, sheet: TabSheet, posterior: SimplePosterior): Holding {
  // A sheet whose middle lies higher wants stronger tabs: its own bear less than believed.
  return estimateHolding(piece, { ...sheet, bearsNPerMm: sheet.bearsNPerMm * Math.exp(-meanOf(posterior)) });
}

/** A tab length and how a piece with such tabs would do. */
export interface TabChoice {
  readonly tabLengthMm: number;
  /** fell out, loose, right, hard to pop, tore. */
  readonly chances: readonly number[];
}

/**
 * Every tab length that can be chosen at a cut length, for a piece of a perimeter and an area.
 *
 * @example listTabs({ perimeterMm: 200, areaMm2: 2500, cutLengthMm: 12 }, tabSheet, fitTabs([], tabSheet))[0].tabLengthMm // 0.3
 */
export function listTabs(
  piece: { readonly perimeterMm: number; readonly areaMm2: number; readonly cutLengthMm: number },
  sheet: TabSheet,
  posterior: SimplePosterior,
): readonly TabChoice[] {
  return TABS_MM.filter((tabLengthMm) => tabLengthMm <= piece.cutLengthMm).map((tabLengthMm) => {
    const tabs = countTabs(piece.perimeterMm, tabLengthMm, piece.cutLengthMm);
    const asked = tabIndex({ tabs, tabLengthMm, areaMm2: piece.areaMm2 }, sheet);
    return { tabLengthMm, chances: predictSimple(TAB_QUANTITY, posterior, asked) };
  });
}

/**
 * The tab length that is most likely right; `undefined` where none can be chosen.
 *
 * @example bestTab([{ tabLengthMm: 0.5, chances: [0, 0, 0.4, 0.6, 0] }, { tabLengthMm: 0.3, chances: [0, 0, 0.8, 0.2, 0] }]).tabLengthMm // 0.3
 */
export function bestTab(choices: readonly TabChoice[]): TabChoice | undefined {
  const right = ({ chances }: TabChoice) => chances[2] ?? 0;
  return choices.reduce<TabChoice | undefined>(
    (best, one) => (best && right(best) >= right(one) ? best : one),
    undefined,
  );
}
