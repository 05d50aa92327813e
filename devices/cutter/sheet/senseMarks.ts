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

/** How far from the corners of the sheet its marks are. Figures from here on are invented for the stand-in. */
const RIM_MM = 14;
/** A mark is looked for so far around where it should be. */
const SEARCH_MM = 6;
/** Below this a mark does not stand out. */
const FAINTEST = 0.3;
/** Marks that fit each other worse than this are not believed. */
const WORST_FIT_MM = 0.6;
const READ_NOISE_MM = 0.04;
const GLARE_AT_FULL_GLOSS = 0.45;
const SMEARED = 0.55;

/**
 * Looks for the four marks of a sheet, fits a turn and a shift to what was read, and tells where cuts will land on the
 * print. The sensor knows no scale: what the printer enlarged stays wrong.
 *
 * @param draw a repeatable number in [0, 1) for a word: one look at one sheet
 */
export function senseMarks(
  sheet: { readonly widthMm: number; readonly heightMm: number },
  print: PrintOnPaper,
  conditions: SenseConditions,
  draw: (what: string) => number,
): Sensed {
  const { widthMm, heightMm } = sheet;
  const corners: readonly (readonly [string, Spot])[] = [
    ['top left', { xMm: RIM_MM, yMm: RIM_MM }],
    ['top right', { xMm: widthMm - RIM_MM, yMm: RIM_MM }],
    ['bottom left', { xMm: RIM_MM, yMm: heightMm - RIM_MM }],
    ['bottom right', { xMm: widthMm - RIM_MM, yMm: heightMm - RIM_MM }],
  ];
  const middle = { xMm: widthMm / 2, yMm: heightMm / 2 };
  const onPaper = aroundMiddle(print.scale, print.turnRad, middle);
  // A sheet is squared at its upper left corner, so that is what it turns about.
  const inMachine = composeMaps(aroundMiddle(1, conditions.skewRad, { xMm: 0, yMm: 0 }), onPaper);
  const strayAt = conditions.hasStrayInk ? Math.floor(draw('stray') * 4) : -1;
  const isBlinded = draw('sense') < GLARE_AT_FULL_GLOSS * conditions.gloss;
  const seen = corners.map(([corner, spot], index) => {
    const contrast =
      (isBlinded ? 0.1 : 1) *
      (conditions.isWet ? SMEARED : 1) *
      (1 - 0.9 * conditions.roomLight) *
      (conditions.isMatLifted && index === 3 ? 0.2 : 1);
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
  if (missing.length > 0) return { marks, landing: null, trouble: tellMissing(missing) };
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

function tellMissing(missing: readonly SensedMark[]): string {
  const where = missing.length === 4 ? 'none of the four' : `not the one at the ${missing[0]?.corner}`;
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
