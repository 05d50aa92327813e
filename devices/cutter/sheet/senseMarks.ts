import { bell } from '#devices/chance.ts';
import type { Spot } from '#devices/cutter/instruction.ts';
import { applyMap, composeMaps, invertMap, type SheetMap } from '#devices/cutter/sheet/sheetMap.ts';

/** How a print lies on its paper: as the printer made it. */
export interface PrintOnPaper {
  readonly scale: number;
  readonly turnRad: number;
  /** ISO: until then the ink smears; left out, it is dry. */
  readonly wetUntil?: string | undefined;
}

/** The marks that are printed on a sheet: how large, and where. */
export interface MarksOnPaper {
  /** The diameter of a disc, the length of a cross or a bar, mm. */
  readonly lengthMm: number;
  readonly spots: readonly (Spot & { readonly name: string })[];
}

interface Size {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** What stands in the way of the sensor. */
export interface SenseConditions {
  /** How much light the sheet throws back, 0 to 1. */
  readonly gloss: number;
  /** How much light of the room falls on the marks, 0 to 1. */
  readonly roomLight: number;
  /** How far the sheet lies askew in the machine. */
  readonly skewRad: number;
  readonly isMatLifted: boolean;
  readonly hasStrayInk: boolean;
  /** Rollers smear the edges of marks whose ink is wet: they stand out less, and are read less well. */
  readonly isWet: boolean;
}

/** One mark as the sensor saw it. */
export interface SensedMark {
  readonly corner: string;
  /** How well it stood out, 0 to 1. */
  readonly contrast: number;
  /** How far it lay from where the file has it, mm. */
  readonly offMm: number;
  readonly isRead: boolean;
}

/** What came of looking for the marks. */
export interface Sensed {
  readonly marks: readonly SensedMark[];
  /** Where a point of the file is cut for the print that lies below; `null` when the marks were not read. */
  readonly landing: SheetMap | null;
  /** What the panel says, or empty. */
  readonly trouble: string;
}

/** Where the marks are when nobody says, from the corners of the sheet. Figures from here on are invented. */
const RIM_MM = 14;
/** Smaller marks stand out less. */
const CLEAR_MARK_MM = 4;
/** A mark is looked for so far around where it should be. */
const SEARCH_MM = 6;
/** Below this a mark does not stand out. */
const FAINTEST = 0.3;
/** Marks that fit each other worse than this are not believed. */
const WORST_FIT_MM = 0.6;
const READ_NOISE_MM = 0.04;
const GLARE_AT_FULL_GLOSS = 0.45;
const SMEARED = 0.55;

/** Four discs near the corners of a sheet. */
function usualMarks({ widthMm, heightMm }: Size): MarksOnPaper {
  const [right, bottom] = [widthMm - RIM_MM, heightMm - RIM_MM];
  return {
    lengthMm: CLEAR_MARK_MM,
    spots: [
      { name: 'top left', xMm: RIM_MM, yMm: RIM_MM },
      { name: 'top right', xMm: right, yMm: RIM_MM },
      { name: 'bottom left', xMm: RIM_MM, yMm: bottom },
      { name: 'bottom right', xMm: right, yMm: bottom },
    ],
  };
}

/**
 * Looks for the marks of a sheet, fits a turn and a shift to what was read, and tells where cuts will land on the
 * print. The sensor knows no scale: what the printer enlarged stays wrong. Small
 * marks stand out less.
 *
 * @param draw a repeatable number in [0, 1) for a word: one look at one sheet
 */
export function senseMarks(
  sheet: Size,
  print: PrintOnPaper,
  conditions: SenseConditions,
  draw: (what: string) => number,
  printed: MarksOnPaper = usualMarks(sheet),
): Sensed {
  const { widthMm, heightMm } = sheet;
  const { spots } = printed;
  const middle = { xMm: widthMm / 2, yMm: heightMm / 2 };
  const onPaper = aroundMiddle(print.scale, print.turnRad, middle);
  // A sheet is squared at its upper left corner, so that is what it turns about.
  const inMachine = composeMaps(aroundMiddle(1, conditions.skewRad, { xMm: 0, yMm: 0 }), onPaper);
  const strayAt = conditions.hasStrayInk ? Math.floor(draw('stray') * spots.length) : -1;
  const isBlinded = draw('sense') < GLARE_AT_FULL_GLOSS * conditions.gloss;
  // A mat lifts at the corner that is fed last.
  const lifted = Math.min(3, spots.length - 1);
  const size = Math.min(1, printed.lengthMm / CLEAR_MARK_MM);
  const seen = spots.map(({ name: corner, ...spot }, index) => {
    const contrast =
      size *
      (isBlinded ? 0.1 : 1) *
      (conditions.isWet ? SMEARED : 1) *
      (1 - 0.9 * conditions.roomLight) *
      (conditions.isMatLifted && index === lifted ? 0.2 : 1);
    const shake = (what: string) => (READ_NOISE_MM / contrast) * bell(`${corner}/${what}`, draw);
    const stray = index === strayAt ? 3.5 : 0;
    const at = applyMap(inMachine, spot);
    const read = { xMm: at.xMm + shake('x') + stray, yMm: at.yMm + shake('y') - stray / 2 };
    const offMm = Math.hypot(read.xMm - spot.xMm, read.yMm - spot.yMm);
    return {
      spot,
      read,
      mark: { corner, contrast, offMm, isRead: contrast >= FAINTEST && offMm <= SEARCH_MM },
    };
  });
  const marks = seen.map(({ mark }) => mark);
  const missing = marks.filter(({ isRead }) => !isRead);
  if (missing.length > 0) return { marks, landing: null, trouble: tellMissing(missing, marks.length) };
  const fit = fitTurn(seen);
  const worst = Math.max(
    ...seen.map(({ spot, read }) => {
      const fitted = applyMap(fit, spot);
      return Math.hypot(fitted.xMm - read.xMm, fitted.yMm - read.yMm);
    }),
  );
  if (worst > WORST_FIT_MM) {
    const trouble = `the marks were not found: what was read does not fit by ${worst.toFixed(1)} mm`;
    return { marks, landing: null, trouble };
  }
  return { marks, landing: composeMaps(invertMap(inMachine), fit), trouble: '' };
}

function tellMissing(missing: readonly SensedMark[], count: number): string {
  const all = count === 4 ? 'none of the four' : `none of the ${count}`;
  const where = missing.length === count ? all : `not the one at the ${missing[0]?.corner}`;
  const isFaint = missing.some(({ contrast }) => contrast < FAINTEST);
  return `the marks were not found: ${where} ${isFaint ? 'stands out' : 'lies where it should'}`;
}

/** The turn and shift, without scale, that bring the spots closest to where they were read. */
function fitTurn(pairs: readonly { readonly spot: Spot; readonly read: Spot }[]): SheetMap {
  const mean = (pick: (pair: (typeof pairs)[number]) => number) =>
    pairs.reduce((sum, pair) => sum + pick(pair), 0) / pairs.length;
  const [sx, sy] = [mean(({ spot }) => spot.xMm), mean(({ spot }) => spot.yMm)];
  const [rx, ry] = [mean(({ read }) => read.xMm), mean(({ read }) => read.yMm)];
  let dot = 0;
  let cross = 0;
  for (const { spot, read } of pairs) {
    const [ax, ay, bx, by] = [spot.xMm - sx, spot.yMm - sy, read.xMm - rx, read.yMm - ry];
    dot += ax * bx + ay * by;
    cross += ax * by - ay * bx;
  }
  const turn = Math.atan2(cross, dot);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return [cos, sin, -sin, cos, rx - cos * sx + sin * sy, ry - sin * sx - cos * sy];
}

function aroundMiddle(scale: number, turnRad: number, { xMm, yMm }: Spot): SheetMap {
  const [cos, sin] = [scale * Math.cos(turnRad), scale * Math.sin(turnRad)];
  return [cos, sin, -sin, cos, xMm - cos * xMm + sin * yMm, yMm - sin * xMm - cos * yMm];
}
