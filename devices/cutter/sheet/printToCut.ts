import { drawFor, wedge } from '#devices/chance.ts';
import type { Spot } from '#devices/cutter/instruction.ts';
import { applyMap, type SheetMap } from '#devices/cutter/sheet/sheetMap.ts';

/** How far a cut lands from the print at one corner of a sheet, as an eye reads it: tenths of a mm. */
export interface CornerReading {
  readonly corner: string;
  /** To the right. */
  readonly sideways: number;
  /** Downwards on the sheet. */
  readonly down: number;
}

/** What this machine is off by on every sheet, and what varies: mm and parts. Invented for the stand-in. */
const STEADY = { x: 0.42, y: -0.27, turn: 0.0012, scale: 1.0008 };
const VARYING_MM = 0.14;

/** How far a machine cuts from where it means to: its own error, and this sheet's. */
export function truthOfSheet(seed: number, sheetCount: number): SheetMap {
  const vary = (what: string) =>
    2.4 * VARYING_MM * wedge(`${sheetCount}/${what}`, (text) => drawFor(seed, text));
  const { turn, scale } = STEADY;
  const [cos, sin] = [scale * Math.cos(turn), scale * Math.sin(turn)];
  return [cos, sin, -sin, cos, STEADY.x + vary('x'), STEADY.y + vary('y')];
}

/** What an eye reads at four corners of a sheet whose file was corrected by `corrected`. */
export function readCorners(
  truth: SheetMap,
  corrected: SheetMap,
  widthMm: number,
  heightMm: number,
  rimMm: number,
): readonly CornerReading[] {
  const corners: readonly (readonly [string, Spot])[] = [
    ['top left', { xMm: rimMm, yMm: rimMm }],
    ['top right', { xMm: widthMm - rimMm, yMm: rimMm }],
    ['bottom left', { xMm: rimMm, yMm: heightMm - rimMm }],
    ['bottom right', { xMm: widthMm - rimMm, yMm: heightMm - rimMm }],
  ];
  return corners.map(([corner, spot]) => {
    const landed = applyMap(truth, applyMap(corrected, spot));
    return {
      corner,
      sideways: Math.round((landed.xMm - spot.xMm) * 10),
      down: Math.round((landed.yMm - spot.yMm) * 10),
    };
  });
}
